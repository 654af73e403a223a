import { learnFaults, planRework, rankCauses, type RankedCause, type Remedy } from '@unto/core';
import type { CreateFaultFinding, FaultCase } from '@unto/contract';
import { faultEvidence, putRight, regionShareOf } from '@unto/domain';
import { createOnce, find, insert, type Context } from '../db/context.js';
import { fault } from '../errors/api-error.js';
import { takeRemedies } from './remedies.js';
import { waysBefore } from './reworks.js';
import { faultCase, requirePossible, settledCases } from './service.js';
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
    await find(context, 'faultCases', caseId, { lock: true });
    const found = await faultCase(context, caseId);
    const causes = [...new Set(request.causes)];
    requirePossible(found, causes);
    if (!causes.length && request.remedies.length)
      throw fault('causes', 'Say what it was before anything is changed for it.');
    const subject = await faultSubject(context, found.kind, found.subjectId);
    const ranking = await rankingOf(context, found);
    await insert(context, 'faultFindings', {
      ...{ id: request.id, caseId, causes, way: request.way, note: request.note.trim() },
      chances: ranking.map(({ cause, chance }) => ({ cause, chance })),
      plan: request.way ? await planned(context, subject, found, { ...request, ranking }) : null,
      remedies: await takeRemedies(context, subject, { ...request, causes, caseId }),
      ...{ at: context.now, byId: context.actor },
    });
  });
  return faultCase(context, caseId);
}

const seenOn = (found: FaultCase) => found.looks.at(-1)!.faults;

/** The causes of a case by all that is known of it now, the likeliest first. */
async function rankingOf(context: Context, found: FaultCase): Promise<readonly RankedCause[]> {
  const knowledge = learnFaults(await settledCases(context, found.id));
  return rankCauses(faultEvidence(found.record, seenOn(found), found.tests), knowledge).causes;
}

async function planned(
  context: Context,
  subject: Subject,
  found: FaultCase,
  { way, remedies, regionShare, ranking }: CreateFaultFinding & { readonly ranking: readonly RankedCause[] },
): Promise<FaultCase['findings'][number]['plan']> {
  const seen = seenOn(found);
  const work = await pieceWork(context, subject);
  if (!work) return null;
  const plans = planRework(
    { ...work, regionShare: regionShare ?? regionShareOf(seen) },
    { seen, ranking, put: putRight(remedies as readonly Remedy[]), before: await waysBefore(context) },
  );
  const chosen = plans.find((one) => one.way === way)!;
  if (chosen.not) throw fault('way', chosen.not);
  const { minutes, costMinor, chance } = chosen;
  return { minutes, costMinor: Math.round(costMinor), chance: chance && chance.value };
}
