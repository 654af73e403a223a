import { contradictions, possibleCauses, type SettledCase } from '@unto/core';
import type { CreateFaultCase, CreateFaultLook, CreateFaultTest, FaultCase } from '@unto/contract';
import { recordAsSeen } from '@unto/domain';
import { createOnce, find, insert, list, OLDEST_FIRST, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { onSubject, recordOf } from './record.js';
import { faultSubject, type Subject } from './subject.js';

/** Begins to look for a fault. What the record says is frozen here: what is read later is a test, not a fact. */
export async function createFaultCase(context: Context, request: CreateFaultCase): Promise<FaultCase> {
  await createOnce(context, 'fault', request, async () => {
    const { id, kind, subjectId, pieces, spots, faults } = request;
    const subject = await faultSubject(context, kind, subjectId);
    requirePieces(subject, pieces);
    requireTogether(request.faults);
    const record = recordAsSeen(await recordOf(context, subject), await onSubject(context, subject), {
      ...{ faults, spots },
      pieces: pieces.length,
    });
    await insert(context, 'faultCases', {
      ...{ id, kind, pieces, record, ticketId: subject.ticket.id },
      ...{ runId: subject.run?.id ?? null, couponId: subject.coupon?.id ?? null, coatId: subject.coat?.id ?? null },
      ...{ at: context.now, byId: context.actor },
    });
    await look(context, id, request);
  });
  return faultCase(context, request.id);
}

function requirePieces({ kind, made }: Subject, pieces: readonly number[]): void {
  if (kind !== 'run' && pieces.length) throw fault('pieces', 'Only a run has pieces.');
  const strange = pieces.find((piece) => piece > made);
  if (strange) throw fault('pieces', `This run is of ${made} pieces; there is no ${strange}.`);
  if (new Set(pieces).size < pieces.length) throw fault('pieces', 'Each piece is named once.');
}

function requireTogether(faults: CreateFaultLook['faults']): void {
  const [cannot] = contradictions(faults);
  if (cannot) throw fault('faults', cannot);
}

async function look(context: Context, caseId: string, { id, faults, spots, note }: CreateFaultLook): Promise<void> {
  await insert(context, 'faultLooks', {
    ...{ id, caseId, faults: [...new Set(faults)], spots, note: note.trim() },
    ...{ at: context.now, byId: context.actor },
  });
}

export async function createFaultLook(context: Context, caseId: string, request: CreateFaultLook): Promise<FaultCase> {
  await createOnce(context, 'fault look', request, async () => {
    await find(context, 'faultCases', caseId, { lock: true });
    requireTogether(request.faults);
    await look(context, caseId, request);
  });
  return faultCase(context, caseId);
}

export async function createFaultTest(context: Context, caseId: string, request: CreateFaultTest): Promise<FaultCase> {
  await createOnce(context, 'fault test', request, async () => {
    await find(context, 'faultCases', caseId, { lock: true });
    if (request.result === 'skipped' && !request.note.trim()) throw fault('note', 'Say why it is skipped.');
    await insert(context, 'faultTests', {
      ...request,
      ...{ note: request.note.trim(), caseId, at: context.now, byId: context.actor },
    });
  });
  return faultCase(context, caseId);
}

/** A case with all that was seen, tested and found. */
export async function faultCase(context: Context, id: string): Promise<FaultCase> {
  return (await casesWhere(context, [await find(context, 'faultCases', id)]))[0]!;
}

/** Cases of a run, coupon or coat, oldest first. */
export async function casesOn(context: Context, { kind, id }: Pick<Subject, 'kind' | 'id'>): Promise<FaultCase[]> {
  const where = { run: { runId: id }, coupon: { couponId: id }, coat: { coatId: id } }[kind];
  return casesWhere(context, await list(context, 'faultCases', { where, order: OLDEST_FIRST }));
}

async function casesWhere(context: Context, rows: readonly Rows['faultCases'][]): Promise<FaultCase[]> {
  const among = { where: { caseId: rows.map(({ id }) => id) }, order: OLDEST_FIRST };
  const looks = await list(context, 'faultLooks', among);
  const tests = await list(context, 'faultTests', among);
  const findings = await list(context, 'faultFindings', among);
  const own = <R extends { caseId: string; at: Date; byId: string }>(all: readonly R[], id: string) =>
    all.filter((row) => row.caseId === id).map(said);
  return rows.map(({ runId, couponId, coatId, at, byId, ...row }) => ({
    ...row,
    subjectId: (runId ?? couponId ?? coatId)!,
    ...{ looks: own(looks, row.id), tests: own(tests, row.id), findings: own(findings, row.id) },
    ...{ at: at.toISOString(), by: byId },
  })) as FaultCase[];
}

function said<R extends { caseId: string; at: Date; byId: string }>({ caseId: _case, at, byId, ...row }: R) {
  return { ...row, at: at.toISOString(), by: byId };
}

/** Newest cases that the shop learns from. */
const MOST_LEARNT = 2000;

/** Cases whose cause was found, but for one: what the shop learnt elsewhere. */
export async function settledCases(context: Context, butId?: string): Promise<SettledCase[]> {
  const rows = await list(context, 'settledFaults', { order: [['at', 'DESC']], limit: MOST_LEARNT });
  return rows.filter(({ id }) => id !== butId).map(({ faults, causes }) => ({ faults, causes }));
}

/** @throws invalid-input for causes that cannot have been at work */
export function requirePossible(of: FaultCase, causes: readonly string[]): void {
  const strange = causes.find((cause) => !possibleCauses(of.record).includes(cause as never));
  if (strange) throw fault('causes', `“${strange}” cannot have been at work on this.`);
}
