import type { CompoundBody, SubstrateBody, TicketPage } from '@unto/contract';
import { coatedAreaMm2, stationStates } from '@unto/domain';
import { coatPicturesOf } from '../coat/pictures.js';
import { coatReadingsOf } from '../coat/readings.js';
import { storedCoatsWhere } from '../coat/stored.js';
import { strokeSamples, transferSamples, weighingsOf } from '../coat/weighings.js';
import { testStepsOf } from '../coupons/step-test.js';
import { couponsOf } from '../coupons/view.js';
import { together, type Context } from '../db/context.js';
import { inventoryItem, itemsById } from '../inventory/service.js';
import { containersLeft } from '../inventory/use.js';
import { newestFitting } from '../place/fittings.js';
import { huntedDepth, newestOfHead, placeReadingsOf } from '../place/service.js';
import { newestSheet } from '../prepare/sheets.js';
import { yieldBefore } from '../prepare/yield.js';
import { offeredRecipe, recipesOf } from '../recipes/views.js';
import { artworksOf, layoutOf } from '../artworks/service.js';
import { testsOf } from '../durability/service.js';
import { verdictsOf } from '../verdicts/service.js';
import { reworksOf } from '../faults/reworks.js';
import { askedOf } from '../questions/service.js';
import { markingOf } from '../markings/service.js';
import { runsOf } from '../runs/ledger.js';
import { checksOf, getTicket } from '../tickets/service.js';
import { timersWhere } from '../timers/service.js';
import { progressOf } from '../progress/service.js';

type Recorded = Omit<TicketPage, 'ticket' | 'stations' | 'transferSamples' | 'strokeSamples' | 'containersLeft'>;

/** A ticket with everything recorded on it. */
export async function ticketPage(context: Context, id: string): Promise<TicketPage> {
  const ticket = await getTicket(context, id);
  const { substrateId, compoundId, headId } = ticket;
  const [recorded, learnt, items] = await together(
    context,
    () => recordedOn(context, ticket),
    () => learntOf(context, ticket),
    () => itemsById(context, [substrateId, headId, ...(compoundId ? [compoundId] : [])]),
  );
  const { progress, checks, fitting, questions } = recorded;
  const fitted = fitting && (items.get(fitting.headId) ?? (await inventoryItem(context, 'head', fitting.headId)));
  const stations = stationStates(
    {
      ...{ ticket, progress, checks, fitting, questions },
      substrate: items.get(substrateId)!.body as SubstrateBody,
      compound: (items.get(compoundId ?? '')?.body ?? null) as CompoundBody | null,
      fittedName: fitted?.body.name ?? '',
    },
    context.now,
  );
  return { ticket, stations, ...recorded, ...learnt };
}

async function recordedOn(context: Context, ticket: TicketPage['ticket']): Promise<Recorded> {
  const { id } = ticket;
  const [progress, checks, timers, weighings, coatReadings, coatPictures, storedCoats, coupons] = await together(
    context,
    async () => (await progressOf(context, [id])).get(id)!,
    () => checksOf(context, id),
    () => timersWhere(context, { ticketId: id }, ticket),
    () => weighingsOf(context, id),
    () => coatReadingsOf(context, id),
    () => coatPicturesOf(context, id),
    () => storedCoatsWhere(context, { ticketId: id }, ticket),
    () => couponsOf(context, ticket),
  );
  const [
    testSteps,
    recipes,
    runs,
    marking,
    placeReadings,
    fitting,
    pointer,
    cardZero,
    sheet,
    hunted,
    yielded,
    artworks,
    layout,
    durability,
    verdicts,
    reworks,
  ] = await together(
    context,
    () => testStepsOf(context, id),
    () => recipesOf(context, ticket),
    () => runsOf(context, id),
    () => markingOf(context, id),
    () => placeReadingsOf(context, id),
    () => newestFitting(context, ticket.headId),
    () => newestOfHead(context, ticket.headId, 'pointer'),
    () => newestOfHead(context, ticket.headId, 'zero'),
    () => newestSheet(context, id),
    () => huntedDepth(context, ticket.lensId),
    () => yieldBefore(context, ticket),
    () => artworksOf(context, id),
    () => layoutOf(context, ticket.layoutId),
    () => testsOf(context, id),
    () => verdictsOf(context, id),
    () => reworksOf(context, id),
  );
  const asked = await askedOf(context, [ticket], () => ({ checks, fitting }));
  return {
    ...{ progress, checks, timers, weighings, coatReadings, coatPictures, storedCoats, coupons },
    offeredRecipe: await offeredRecipe(context, ticket, recipes[0]),
    ...{
      testSteps,
      recipes,
      runs,
      marking,
      placeReadings,
      fitting,
      pointer,
      cardZero,
      sheet,
      artworks,
      layout,
      durability,
      verdicts,
      reworks,
      questions: asked.get(id)!,
      huntedDepth: hunted,
      yieldBefore: yielded,
    },
  };
}

/** What earlier coats of the chosen compound taught, and what is left of it. */
async function learntOf(
  context: Context,
  ticket: TicketPage['ticket'],
): Promise<Pick<TicketPage, 'transferSamples' | 'strokeSamples' | 'containersLeft'>> {
  const { compoundId } = ticket;
  if (!compoundId) return { transferSamples: [], strokeSamples: [], containersLeft: [] };
  const [transfer, strokes, left] = await together(
    context,
    () => transferSamples(context, compoundId),
    () => strokeSamples(context, compoundId),
    () => containersLeft(context, compoundId, coatedAreaMm2(ticket)),
  );
  return { transferSamples: transfer, strokeSamples: strokes, containersLeft: left };
}
