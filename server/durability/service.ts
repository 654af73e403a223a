import { literal, Op } from 'sequelize';
import type { CreateDurabilityLook, CreateDurabilityTest, DurabilityTest, LastingRow } from '@unto/contract';
import { isOver } from '@unto/domain';
import { createOnce, find, insert, list, OLDEST_FIRST, rowsOf, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError, fault } from '../errors/api-error.js';
import { namesOf } from '../inventory/service.js';
import { requirePieceOf } from '../samples/counted.js';

/** Begins a test on a piece of a ticket's run. @throws wrong-stage before the run is cleaned: what is under the coat is not seen yet */
export async function createDurabilityTest(
  context: Context,
  ticketId: string,
  request: CreateDurabilityTest,
): Promise<DurabilityTest[]> {
  await createOnce(context, 'durability test', request, async () => {
    const run = await find(context, 'runs', request.runId);
    if (run.ticketId !== ticketId) throw fault('runId', 'That run is of another ticket.');
    requirePieceOf(run, request.piece);
    if ((request.beforeContrast === null) !== (request.readBy === null))
      throw fault('readBy', 'A contrast is read by picture or by eye: say which, or leave both out.');
    const [cleaned] = await list(context, 'cleanings', { where: { runId: run.id }, limit: 1 });
    if (run.compoundId && !cleaned)
      throw new ApiError('wrong-stage', 'Clean these pieces first: what lies under the coat is not seen yet.');
    await insert(context, 'durabilityTests', { ...request, at: context.now, byId: context.actor });
  });
  return testsOf(context, ticketId);
}

export async function createDurabilityLook(
  context: Context,
  testId: string,
  request: CreateDurabilityLook,
): Promise<DurabilityTest[]> {
  const test = await find(context, 'durabilityTests', testId, { lock: true });
  const { ticketId } = await find(context, 'runs', test.runId);
  await createOnce(context, 'durability look', request, async () => {
    const { doseDone, afterContrast } = request;
    const [view] = await testViews(context, [test]);
    const before = view!.looks.at(-1)?.doseDone ?? 0;
    if (view!.over) throw new ApiError('wrong-stage', 'This test is over: begin another to go on.');
    if (doseDone <= before) throw fault('doseDone', `${before} were done at the look before: this one is after more.`);
    if (afterContrast !== null && test.beforeContrast === null)
      throw fault('afterContrast', 'Its contrast was not read before the test: nothing to compare with.');
    await insert(context, 'durabilityLooks', { ...request, testId, at: context.now, byId: context.actor });
  });
  return testsOf(context, ticketId);
}

/** Tests on the runs of a ticket, oldest first. */
export async function testsOf(context: Context, ticketId: string): Promise<DurabilityTest[]> {
  const runs = await list(context, 'runs', { where: { ticketId }, attributes: ['id'] });
  const where = { runId: { [Op.in]: runs.map(({ id }) => id) } };
  return testViews(context, await list(context, 'durabilityTests', { where, order: OLDEST_FIRST }));
}

/** As isOver has it, of many: Today reads no test that ended years ago. */
const NOT_OVER = literal(`NOT EXISTS (SELECT 1 FROM durability_looks l WHERE l.test_id = "durabilityTests".id
  AND (l.result = 'lost' OR l.dose_done >= "durabilityTests".dose))`);

/** Tests that wait to be looked at, on whatever ticket. */
export async function testsDue(context: Context): Promise<DurabilityTest[]> {
  const rows = await list(context, 'durabilityTests', { where: NOT_OVER, order: OLDEST_FIRST });
  return (await testViews(context, rows)).filter(({ over, dueOn }) => !over && dueOn !== null);
}

async function testViews(context: Context, rows: readonly Rows['durabilityTests'][]): Promise<DurabilityTest[]> {
  if (!rows.length) return [];
  const where = { testId: { [Op.in]: rows.map(({ id }) => id) } };
  const looks = await list(context, 'durabilityLooks', { where, order: OLDEST_FIRST });
  const runs = new Map(
    (await rowsOf(context, 'runs', [...new Set(rows.map(({ runId }) => runId))])).map((run) => [run.id, run]),
  );
  return rows.map(({ at, byId, dueOn, ...row }) => {
    const own = looks.filter(({ testId }) => testId === row.id);
    const over = isOver({ dose: row.dose, looks: own });
    const last = own.at(-1);
    return {
      ...row,
      ...{ ticketId: runs.get(row.runId)!.ticketId, over, dueOn: over ? null : last ? last.nextOn : dueOn },
      looks: own.map(({ id, doseDone, result, afterContrast, at: seen, byId: by }) => ({
        ...{ id, doseDone, result, afterContrast, at: seen.toISOString(), by },
      })),
      ...{ at: at.toISOString(), by: byId },
    };
  });
}

/** Rows that are compared at once. */
const MOST = 500;

interface LastingOf {
  readonly substrateId?: string | undefined;
  readonly runIds?: readonly string[] | undefined;
}

/** The newest look of every test, the newest first. */
export async function lastingRows(context: Context, { substrateId, runIds }: LastingOf): Promise<LastingRow[]> {
  const [rows] = await context.sequelize.query(
    `SELECT * FROM (SELECT DISTINCT ON (l.test_id) t.id AS "testId", r.ticket_id AS "ticketId", r.id AS "runId", r.compound_id AS "compoundId",
       r.substrate_id AS "substrateId", t.protocol, t.dose, l.dose_done AS "doseDone", l.result,
       t.before_contrast AS "beforeContrast", l.after_contrast AS "afterContrast", t.read_by AS "readBy", l.at
     FROM durability_looks l JOIN durability_tests t ON t.id = l.test_id JOIN runs r ON r.id = t.run_id
     WHERE (:substrateId::uuid IS NULL OR r.substrate_id = :substrateId::uuid)
       AND (:all OR r.id IN (:runIds))
     ORDER BY l.test_id, l.sequence DESC) newest ORDER BY at DESC LIMIT ${MOST}`,
    {
      replacements: {
        ...{ substrateId: substrateId ?? null, all: !runIds },
        runIds: runIds?.length ? runIds : ['00000000-0000-0000-0000-000000000000'],
      },
      transaction: context.transaction ?? null,
    },
  );
  const found = rows as (Omit<LastingRow, 'at' | 'compoundName' | 'substrateName'> & { at: Date })[];
  const names = await namesOf(context, [...new Set(found.flatMap((row) => [row.compoundId, row.substrateId]))]);
  return found.map((row) => ({
    ...row,
    compoundName: row.compoundId ? (names.get(row.compoundId) ?? '') : null,
    substrateName: names.get(row.substrateId) ?? '',
    at: row.at.toISOString(),
  }));
}
