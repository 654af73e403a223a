import { weakestGrade, type Grade } from '@unto/core';
import { type ImportReport, type InventoryKind, type Revisions } from '@unto/contract';
import { settingOnEquipment, type FittedEquipment, type SaidSetting } from '@unto/domain';
import { isId, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { gently } from '../db/in-parts.js';
import type { FileRecord, KeptRecord } from '../formats/ledger-files.js';
import { doseFigure, gradeOfRun } from './run-figures.js';

type FileProblem = ImportReport['problems'][number];

/** A record of a file as it is kept: its entry as it stands, what follows from it worked out here. */
export interface Imported {
  readonly line: number;
  readonly record: KeptRecord;
}

/** No run of this product is older, ms since 1970; and none is of more than a day ahead, whatever a clock says. */
const EARLIEST_MS = Date.parse('2000-01-01');
const AHEAD_MS = 24 * 3600 * 1000;

/**
 * Holds records of a file whole against what they refer to, and works out anew what follows: setting in core units, dose, grade. A grade
 * comes no better than its recipe here proves it, and without one no better than stated.
 */
export async function checkedWhole(
  context: Context,
  entries: readonly FileRecord[],
): Promise<{ readonly records: readonly Imported[]; readonly problems: readonly FileProblem[] }> {
  const known = await knownRevisions(context, entries);
  const recipes = await byId(
    context,
    'recipes',
    entries.map(({ record }) => record.recipeId),
  );
  const corrected = await byId(
    context,
    'runs',
    entries.map(({ record }) => record.correctsId),
  );
  const inFile = new Map(entries.map(({ record }) => [record.id, record]));
  const records: Imported[] = [];
  const problems: FileProblem[] = [];
  await gently(entries, ({ line, record, faults: own }) => {
    const faults = [
      ...own,
      ...momentFaults(record, context.now),
      ...correctionFaults(record, inFile.get(record.correctsId ?? '') ?? corrected.get(record.correctsId ?? '')),
      ...revisionFaults(record, known),
    ];
    problems.push(...faults.map((message) => ({ line, message: `Line ${line}: ${message}` })));
    if (!faults.length)
      records.push({ line, record: workedOut(record, known, recipes.get(record.recipeId ?? '') ?? null) });
  });
  return { records, problems };
}

function momentFaults({ at, cleaning, judgement }: KeptRecord, now: Date): string[] {
  return [at, cleaning?.at, judgement?.at].flatMap((text) => {
    if (text === undefined) return [];
    const moment = Date.parse(text);
    return moment >= EARLIEST_MS && moment <= now.getTime() + AHEAD_MS ? [] : [`“${text}” is no moment of a run.`];
  });
}

function correctionFaults(
  { id, ticketId, correctsId }: KeptRecord,
  other: { readonly ticketId: string } | undefined,
): string[] {
  if (!correctsId) return [];
  if (correctsId === id) return ['it corrects itself.'];
  if (!other) return [`the run it corrects, ${correctsId}, is neither here nor in the file.`];
  return other.ticketId === ticketId ? [] : ['the run it corrects belongs to another ticket.'];
}

interface KnownRevision {
  readonly kind: InventoryKind;
  readonly itemId: string;
  readonly body: Record<string, unknown>;
}

/** Each revision must be one of the thing that the record names, or belong to its head. */
function revisionFaults(record: KeptRecord, known: ReadonlyMap<string, KnownRevision>): string[] {
  const { substrateId, compoundId, headId } = record;
  const revisions = (record.revisions ?? {}) as Partial<Revisions>;
  const expected = (['substrate', 'compound', 'head', 'lens', 'machine', 'calibration'] as const).filter(
    (kind) => revisions[kind] || (kind !== 'calibration' && !(kind === 'compound' && compoundId === null)),
  );
  const own = { substrate: substrateId, compound: compoundId, head: headId };
  const head = known.get(revisions.head ?? '');
  return expected.flatMap((kind) => {
    const found = known.get(revisions[kind] ?? '');
    if (found?.kind !== kind) return [`its ${kind} revision ${revisions[kind] ?? '(none)'} is none that is kept here.`];
    const fits =
      kind === 'machine'
        ? head?.body['machineId'] === found.itemId
        : kind === 'lens' || kind === 'calibration'
          ? found.body['headId'] === headId
          : found.itemId === own[kind];
    return fits ? [] : [`its ${kind} revision is of another ${kind} than the run’s.`];
  });
}

function workedOut(
  record: KeptRecord,
  known: ReadonlyMap<string, KnownRevision>,
  recipe: Rows['recipes'] | null,
): KeptRecord {
  const { revisions } = record;
  const body = (id: string | null) => (id ? (known.get(id)?.body ?? null) : null);
  const equipment = {
    ...{ machine: body(revisions.machine), head: body(revisions.head), lens: body(revisions.lens) },
    ...{ substrate: body(revisions.substrate), calibration: body(revisions.calibration) },
  } as unknown as FittedEquipment;
  const setting = settingOnEquipment(record as unknown as SaidSetting, equipment);
  const proved = gradeOfRun(setting, recipe, revisions, []);
  const best: Grade = recipe ? proved.grade : 'stated';
  const grade = weakestGrade([record.grade, best]);
  const left = record.recipeId && !recipe ? ['its recipe was not brought along'] : [];
  const because =
    grade === record.grade && !left.length
      ? record.because
      : [...record.because, ...proved.because, ...left, 'brought from a file'];
  return {
    ...record,
    ...setting,
    recipeId: recipe?.id ?? null,
    dose: doseFigure(setting, { speed: record.speed }, equipment, revisions),
    grade,
    because: [...new Set(because)],
  } as KeptRecord;
}

async function knownRevisions(
  context: Context,
  entries: readonly FileRecord[],
): Promise<ReadonlyMap<string, KnownRevision>> {
  const wanted = entries.flatMap(({ record }) => Object.values((record.revisions ?? {}) as object)) as unknown[];
  const rows = await byId(context, 'inventoryRevisions', wanted);
  const items = await byId(
    context,
    'inventoryItems',
    [...rows.values()].map(({ itemId }) => itemId),
  );
  return new Map(
    [...rows].map(([id, { itemId, body }]) => [
      id,
      { kind: items.get(itemId)!.kind, itemId, body: body as unknown as Record<string, unknown> },
    ]),
  );
}

/** Rows by their ids, as far as they are here; what is no id names nothing. */
async function byId<T extends 'recipes' | 'runs' | 'inventoryRevisions' | 'inventoryItems'>(
  context: Context,
  table: T,
  ids: readonly unknown[],
): Promise<Map<string, Rows[T]>> {
  const distinct = [...new Set(ids)].filter((id): id is string => typeof id === 'string' && isId(id));
  const rows = await rowsOf(context, table, distinct);
  return new Map(rows.map((row) => [(row as { id: string }).id, row]));
}
