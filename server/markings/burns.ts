import { randomUUID } from 'node:crypto';
import type { ControllerAction, CreatePieceEvent, Marking, SettleBurn, StartRunBurn } from '@unto/contract';
import { burnSetup, madePieces, markedNumbers, settingOnEquipment } from '@unto/domain';
import { askOfBurn, queueBurn, requireController, requireNoBurn, settleBurn } from '../burns/burns.js';
import { switchesOf, type BurnSubject } from '../burns/subject.js';
import { createOnce, find, insert, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { ApiError } from '../errors/api-error.js';
import { equipmentOf, inventoryItem } from '../inventory/service.js';
import { requireFitted } from '../place/fittings.js';
import { pieceSizeOf, placesOf } from '../prepare/sheets.js';
import { laserOnOf, loadOf, runProgram } from '../programs/program.js';
import { countedOf } from '../samples/counted.js';
import { refuseWetCoat } from '../timers/wet-coat.js';
import { workshop } from '../workshop/service.js';
import { getMarking, requireCounting } from './service.js';

type Burn = Rows['burns'];

/**
 * Keeps that pieces of a counted run are to be sent to the controller: those to go of one load; the first alone where the shop stops for it.
 * @throws wrong-stage for a head that takes no G-code, a wet coat, or a first piece nobody has looked at
 */
export async function startRunBurn(context: Context, markingId: string, { id }: StartRunBurn): Promise<Marking> {
  await createOnce(context, 'burn', { id }, async () => {
    const marking = await find(context, 'markings', markingId, { lock: true });
    requireCounting(marking);
    await requireNoBurn(context, { markingId });
    await requireReady(context, marking);
    requireController(context);
    const equipment = await equipmentOf(context, marking.revisions);
    if (equipment.machine.motion !== 'gantry')
      throw new ApiError('wrong-stage', 'This head takes no G-code: bring it the SVG or DXF, and count by hand.');
    const numbers = await numbersToSend(context, marking);
    // What cannot be written is refused here and not by a worker.
    await runProgram(context, marking, numbers);
    const laserOn = laserOnOf(settingOnEquipment(marking.entered, equipment));
    await queueBurn(context, { id, of: { markingId }, laserOn, parts: numbers.map((number) => number - 1) });
  });
  return getMarking(context, markingId);
}

export async function actOnRunBurn(context: Context, id: string, action: ControllerAction): Promise<Marking> {
  return getMarking(context, (await askOfBurn(context, id, action)).markingId!);
}

export async function settleRunBurn(context: Context, id: string, request: SettleBurn): Promise<Marking> {
  return getMarking(context, (await settleBurn(context, runBurns, id, request)).markingId!);
}

async function requireReady(context: Context, { ticketId }: Rows['markings']): Promise<void> {
  await requireFitted(context, await find(context, 'tickets', ticketId));
  await refuseWetCoat(context, ticketId);
}

async function numbersToSend(context: Context, marking: Rows['markings']): Promise<number[]> {
  const { firstPiece, counted } = await getMarking(context, marking.id);
  const made = new Set(madePieces(counted).map(({ piece }) => piece));
  const toGo = markedNumbers(marking.entered).filter((_, i) => !made.has(i + 1));
  if (!toGo.length) throw new ApiError('wrong-stage', 'Every piece of this run is counted: end it.');
  if (firstPiece === 'lost')
    throw new ApiError(
      'wrong-stage',
      'The first piece was lost: end this run, and look at dose, focus and coat first.',
    );
  if ((await workshop(context)).firstPieceStop && firstPiece === null && marking.pieces > 1) {
    if (made.size) throw new ApiError('wrong-stage', 'Say first how the first piece stood rinse and scrub.');
    return toGo.slice(0, 1);
  }
  const load = await loadOf(context, await find(context, 'tickets', marking.ticketId));
  const loadAt = (number: number) => Math.floor((number - 1) / load);
  return toGo.filter((number) => loadAt(number) === loadAt(toGo[0]!));
}

const markingOfBurn = (context: Context, { markingId }: Burn) => find(context, 'markings', markingId!);

/** Pieces of a counted run on the controller: it counts them as they are done. */
export const runBurns: BurnSubject = {
  async scene(context, burn) {
    const marking = await markingOfBurn(context, burn);
    return { ...(await layUnderHead(context, marking)), ...switchesOf(marking.entered) };
  },
  order: async (_context, burn) => [...burn.parts!],
  async gcode(context, burn, left) {
    return runProgram(
      context,
      await markingOfBurn(context, burn),
      (left ?? burn.parts!).map((part) => part + 1),
    );
  },
  async requireReady(context, burn) {
    await requireReady(context, await markingOfBurn(context, burn));
  },
  async progressed(context, burn, before) {
    const marking = await markingOfBurn(context, burn);
    const fresh = (now: readonly number[], then: readonly number[]) => now.filter((part) => !then.includes(part));
    const done = fresh(burn.cellsDone, before.cellsDone).map((part) => ({ part, what: 'done', why: null }) as const);
    const cut = fresh(burn.cellsCut, before.cellsCut).map(
      (part) => ({ part, what: 'set aside', why: 'interrupted' }) as const,
    );
    if (done.length || cut.length) await countPieces(context, { marking, burn }, [...done, ...cut]);
  },
  // Its pieces are counted as they are done: there is nothing more to take.
  taken: async () => {},
  unfired: async () => {},
};

/** Counts what the controller told, in the name of who sent it; what somebody said of a piece meanwhile stands. */
async function countPieces(
  context: Context,
  { marking, burn }: { marking: Rows['markings']; burn: Burn },
  said: readonly (Pick<CreatePieceEvent, 'what' | 'why'> & { readonly part: number })[],
): Promise<void> {
  const numbers = markedNumbers(marking.entered);
  const spoken = new Set(madePieces(await countedOf(context, marking.id)).map(({ piece }) => piece));
  for (const { part, what, why } of said) {
    const piece = numbers.indexOf(part + 1) + 1;
    if (spoken.has(piece)) continue;
    await insert(context, 'pieceEvents', {
      ...{ id: randomUUID(), markingId: marking.id, piece, what, why, spot: null },
      ...{ at: context.now, byId: burn.byId },
    });
  }
}

/** What lies under the head: the ticket's pieces, coated, in the places of its jig. */
export async function layUnderHead(context: Context, { id, ticketId, entered, revisions }: Rows['markings']) {
  const [ticket, equipment] = [await find(context, 'tickets', ticketId), await equipmentOf(context, revisions)];
  const places = await placesOf(context, ticketId);
  const blank = await pieceSizeOf(context, ticket, entered.blankId);
  const compound = ticket.compoundId ? (await inventoryItem(context, 'compound', ticket.compoundId)).body : null;
  const block = { compound: compound?.name ?? '', coats: 1, powder: compound?.handling === 'loose powder' };
  const lies = {
    ...{ key: id, batch: ticketId, focusMm: entered.focusOffsetMm, blank },
    blocks: [{ fromMm: 0, toMm: blank.widthMm + 1, ...block }],
  };
  const pieces = markedNumbers(entered).map((number) => {
    const place = places?.[(number - 1) % places.length];
    return { part: number - 1, xMm: place?.xMm ?? 0, yMm: place?.yMm ?? 0, turnDeg: place?.turnDeg ?? 0 };
  });
  return { setup: burnSetup(equipment, lies), pieces };
}
