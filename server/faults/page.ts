import { layoutCoupon, fitWindow, outcomeChances, seenOnCoupon, type ExpectedCell, type Fault } from '@unto/core';
import type { FaultPage, FaultSubject } from '@unto/contract';
import { couponLimits, windowEquipment } from '@unto/domain';
import { scrubbedCells } from '../coupons/window.js';
import { list, NEWEST_FIRST, type Context } from '../db/context.js';
import { equipmentOf } from '../inventory/service.js';
import { runSample } from '../samples/service.js';
import { trayReadings } from '../trays/service.js';
import { onSubject, recordOf } from './record.js';
import { changeable } from './remedies.js';
import { waysBefore } from './reworks.js';
import { casesOn, settledCases } from './service.js';
import { faultSubject, type Subject } from './subject.js';
import { pieceWork } from './work.js';

type Proposal = FaultPage['proposals'][number];

/** All that is needed to look for a fault on a run, a coupon or a coat. */
export async function faultPage(context: Context, kind: FaultSubject, id: string): Promise<FaultPage> {
  const subject = await faultSubject(context, kind, id);
  const { ticket } = subject;
  const on = await onSubject(context, subject);
  const cases = await casesOn(context, subject);
  const before = await waysBefore(context);
  return {
    ...{ kind, subjectId: id, ticketId: ticket.id, title: ticket.title, ...on },
    about: aboutOf(subject),
    at: subject.at.toISOString(),
    // What was frozen as it was first looked for needs no window fitted again.
    record: cases.at(-1)?.record ?? (await recordOf(context, subject)),
    proposals: await proposalsOf(context, subject),
    cases,
    settled: await settledCases(context, cases.at(-1)?.id),
    before: Object.entries(before).map(([way, counts]) => ({ way: way as never, ...counts })),
    work: await pieceWork(context, subject),
    ...(await changeable(context, subject)),
  };
}

function aboutOf({ run, coupon }: Subject): string {
  if (run) return `${run.pieces} piece${run.pieces === 1 ? '' : 's'}`;
  return coupon ? `coupon ${coupon.design.code}` : 'a coat before it was fired';
}

function proposalsOf(context: Context, subject: Subject): Promise<Proposal[]> {
  if (subject.run) return seenOnRun(context, subject.run.id);
  return subject.coupon ? seenOnCells(context, subject) : Promise.resolve(seenOnCoat(subject));
}

/** What was said at Judge, placed on pieces, and read from the newest picture of the tray. */
async function seenOnRun(context: Context, runId: string): Promise<Proposal[]> {
  const [judgement] = await list(context, 'judgements', { where: { runId }, order: NEWEST_FIRST, limit: 1 });
  const { faults } = await runSample(context, runId);
  const [tray] = await trayReadings(context, runId);
  return [
    ...faults.map(({ fault, spot, piece }) => ({ fault, spot, piece, words: `placed on piece ${piece}` })),
    ...(tray?.pieces ?? []).flatMap(({ piece, findings }) =>
      findings.map(({ kind, spot, words }) => ({
        fault: kind as Fault,
        spot,
        piece,
        words: `picture of piece ${piece}: ${words}`,
      })),
    ),
    ...(judgement?.faults ?? []).map((fault) => ({
      fault: fault as Fault,
      spot: null,
      piece: null,
      words: 'said at Judge',
    })),
  ];
}

const SEED = 7;

/** Where the scrubbed cells of a coupon were lost more than their settings explain, by their own fit. */
async function seenOnCells(context: Context, { coupon, compoundId }: Subject): Promise<Proposal[]> {
  const { families } = await scrubbedCells(context, [coupon!], compoundId);
  const family = families[0];
  if (!family) return [];
  const equipment = await equipmentOf(context, coupon!.revisions);
  const fit = fitWindow({ cells: family.cells, equipment: windowEquipment(equipment), seed: SEED });
  const { cells, needed } = layoutCoupon(coupon!.design, couponLimits(equipment));
  const expected: ExpectedCell[] = family.cells.map((cell) => {
    const { xMm, yMm } = cells[cell.cell]!;
    const [x, y] = [xMm / needed.widthMm, 1 - yMm / needed.heightMm];
    return { x, y, outcome: cell.outcome, holds: outcomeChances(fit, cell).holds };
  });
  return seenOnCoupon(expected).map((proposal) => ({ ...proposal, piece: null }));
}

/** What the picture of a dry coat shows: places too thin or thick, brush marks. */
function seenOnCoat({ coat }: Subject): Proposal[] {
  const { places, brush } = coat!.judgement;
  const { widthMm, heightMm } = coat!.entries;
  const [first] = places;
  const found: Proposal[] = [];
  if (first) {
    const spot = { x: (first.xMm + first.widthMm / 2) / widthMm, y: (first.yMm + first.heightMm / 2) / heightMm };
    const clamp = (share: number) => Math.min(1, Math.max(0, share));
    found.push({
      fault: 'patchy',
      spot: { x: clamp(spot.x), y: clamp(spot.y) },
      piece: null,
      words: `picture of the coat: ${first.fault}`,
    });
  }
  if (brush)
    found.push({ fault: 'density drifts', spot: null, piece: null, words: 'picture of the coat: brush marks' });
  return found;
}
