import { learnFaults, planRework, rankCauses, type PieceWork, type ReworkPlan } from '@unto/core';
import type { CreateFaultFinding, FaultCase } from '@unto/contract';
import { faultEvidence, putRight, regionShareOf } from '@unto/domain';
import { createOnce, find, insert, type Context } from '../db/context.js';
import { fault } from '../errors/api-error.js';
import { takeRemedies } from './remedies.js';
import { waysBefore } from './reworks.js';
import { chancesOf, faultCase, requirePossible, settledCases } from './service.js';
import { faultSubject, type Subject } from './subject.js';
import { pieceWork } from './work.js';

/**
 * Settles a fault: what it was, what is done with the pieces, what is changed. What every cause was given, and what the way was planned with, is frozen
 * with it. Settled again, the newest finding counts; remedies that were taken stay.
 */
export async function createFaultFinding(
  context: Context,
  caseId: string,
  request: CreateFaultFinding,
): Promise<FaultCase> {
  await createOnce(context, 'fault finding', request, async () => {
    const row = await find(context, 'faultCases', caseId, { lock: true });
    const found = await faultCase(context, caseId);
    const causes = [...new Set(request.causes)];
    requirePossible(found, causes);
    if (!causes.length && request.remedies.length)
      throw fault('causes', 'Say what it was before anything is changed for it.');
    const subject = await faultSubject(context, found.kind, found.subjectId);
    await insert(context, 'faultFindings', {
      ...{ id: request.id, caseId: row.id, causes, way: request.way, note: request.note.trim() },
      chances: await chancesOf(context, found),
      plan: request.way ? await planned(context, subject, found, request) : null,
      remedies: await takeRemedies(context, subject, { ...request, causes, caseId }),
      ...{ at: context.now, byId: context.actor },
    });
  });
  return faultCase(context, caseId);
}

async function planned(
  context: Context,
  subject: Subject,
  found: FaultCase,
  { way, remedies, regionShare }: CreateFaultFinding,
): Promise<FaultCase['findings'][number]['plan']> {
  const faults = found.looks.at(-1)!.faults;
  const work = await pieceWork(context, subject);
  if (!work) return null;
  const share = { ...work, regionShare: regionShare ?? regionShareOf(faults) };
  const plan = await plansOf(context, found, share, remedies as never);
  const chosen = plan.find((one) => one.way === way)!;
  if (chosen.not) throw fault('way', chosen.not);
  const { minutes, costMinor, chance } = chosen;
  return { minutes, costMinor: Math.round(costMinor), chance: chance && chance.value };
}

async function plansOf(
  context: Context,
  found: FaultCase,
  work: PieceWork,
  remedies: Parameters<typeof putRight>[0],
): Promise<ReworkPlan[]> {
  const seen = found.looks.at(-1)!.faults;
  const knowledge = learnFaults(await settledCases(context, found.id));
  const ranking = rankCauses(faultEvidence(found.record, seen, found.tests), knowledge).causes;
  return planRework(work, { seen, ranking, put: putRight(remedies), before: await waysBefore(context) });
}
