import { calendarWhiles, type Cause } from '@unto/core';
import type { FaultCauses, FaultCausesQuery } from '@unto/contract';
import { list, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';

/** Newest settled cases that a chart of causes counts. */
const MOST = 2000;
/** Whiles that they are counted by. */
const MOST_WHILES = 12;

/** Causes that were found, the commonest first: of all cases, or those of a compound, a substrate, or runs that somebody made. */
export async function faultCauses(context: Context, query: FaultCausesQuery): Promise<FaultCauses> {
  const { compoundId, substrateId, operatorId } = query;
  const where = {
    ...(compoundId ? { compoundId } : {}),
    ...(substrateId ? { substrateId } : {}),
    ...(operatorId ? { byId: operatorId } : {}),
  };
  const rows = await list(context, 'settledFaults', { where, order: [['at', 'DESC']], limit: MOST });
  const titles = new Map(
    (await list(context, 'tickets', { where: { id: [...new Set(rows.map(({ ticketId }) => ticketId))] } })).map(
      ({ id, title }) => [id, title],
    ),
  );
  const of = new Map<Cause, Rows['settledFaults'][]>();
  for (const row of rows) for (const cause of row.causes) of.set(cause, [...(of.get(cause) ?? []), row]);
  const { by, whiles } = overTime(rows, context.now);
  const causes = [...of].map(([cause, cases]) => {
    const [newest] = cases as [Rows['settledFaults']];
    const subject = { kind: newest.kind, id: newest.subjectId, title: titles.get(newest.ticketId) ?? '' };
    const over = whiles.map(({ own }) => own.filter((row) => row?.causes.includes(cause)).length);
    return { cause, cases: cases.length, newest: newest.at.toISOString(), over, faults: [...newest.faults], subject };
  });
  return {
    cases: rows.length,
    open: await openCases(context),
    by,
    whiles: whiles.map(({ from, own }) => ({
      ...{ from: new Date(from).toISOString(), cases: own.filter((row) => row !== null).length },
    })),
    causes: causes.sort((a, b) => b.cases - a.cases || (a.newest < b.newest ? 1 : -1)),
  };
}

/** Cases by calendar whiles, up to this one: that it has been quiet since tells as well. */
function overTime(rows: readonly Rows['settledFaults'][], now: Date) {
  if (!rows.length) return calendarWhiles<Rows['settledFaults'] | null>([], () => 0, MOST_WHILES);
  return calendarWhiles([...rows, null], (row) => (row?.at ?? now).getTime(), MOST_WHILES);
}

async function openCases(context: Context): Promise<number> {
  const [[row]] = (await context.sequelize.query(
    'SELECT count(*)::int AS open FROM fault_cases c WHERE NOT EXISTS (SELECT 1 FROM fault_findings f WHERE f.case_id = c.id)',
    { transaction: context.transaction ?? null },
  )) as unknown as [[{ open: number }]];
  return row.open;
}
