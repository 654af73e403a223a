import {
  CHOICE_MODEL_VERSION,
  drawValueScores,
  isUncoated,
  judgeCompound,
  judgeMethod,
  learnTransfer,
  METHOD_WORDS,
  METHODS,
  optionEstimates,
  pooledSpread,
  rankOptions,
  switchingPoints,
  type CoatPlan,
  type CompoundJudgement,
  type Criterion,
  type MarkEvidence,
  type Method,
  type OptionFacts,
  type OptionJob,
  type PartFacts,
  type RankedOption,
} from '@unto/core';
import type {
  Choice,
  ChoiceOptionView,
  ChoicePage,
  CreateChoice,
  FrozenScore,
  MethodView,
  Revisions,
  InventoryItem,
  Ticket,
  Workshop,
} from '@unto/contract';
import { coatPlanFor, sprayedMix, type FittedEquipment } from '@unto/domain';
import { createOnce, find, insert, list, requireVersion, together, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { listInventory, loadEquipment } from '../inventory/service.js';
import { stockByCompound } from '../inventory/use.js';
import { getTicket } from '../tickets/service.js';
import { transferSamples } from '../coat/weighings.js';
import { workshop } from '../workshop/service.js';
import { markEvidence, substratesNear, yearlyUse } from './evidence.js';
import { CHOICE_SEED, pairingRate, type PairingRate } from './rate.js';

/** Everything Choose shows for a ticket. */
export async function choicePage(context: Context, ticketId: string): Promise<ChoicePage> {
  const place = await placeOf(context, await getTicket(context, ticketId));
  const options = await optionsOf(context, place);
  return {
    seed: CHOICE_SEED,
    modelVersion: CHOICE_MODEL_VERSION,
    options,
    methods: methodViews(place),
    yearlyUse: await yearlyUse(context),
    stock: await stockByCompound(context),
    blank: place.blank && { id: place.blank.id, name: place.blank.body.name, priceMinor: place.blank.body.priceMinor },
    choices: await choicesOf(context, ticketId),
  };
}

/**
 * Takes an option: ranks again under the weights sent, freezes scores, seed and switching points, and puts the choice on the ticket.
 * @throws invalid-input for an option that is withheld or unknown; version-conflict for a stale ticket
 */
export async function createChoice(context: Context, ticketId: string, request: CreateChoice): Promise<Ticket> {
  await createOnce(context, 'choice', request, async () => {
    const stored = await find(context, 'tickets', ticketId, { lock: true });
    const ticket = await getTicket(context, ticketId);
    requireVersion(stored.version, request.version, ticket);
    const options = await optionsOf(context, await placeOf(context, ticket));
    const taken = options.find(({ id }) => id === request.optionId);
    if (!taken) throw fault('optionId', 'That is no option for this part any more: look at the list again.');
    const against = taken.judgement.reasons.find(({ hard }) => hard);
    if (against) throw fault('optionId', `${taken.name} is withheld: ${against.text}`);
    const ranked = rankOptions(drawValueScores(options.filter(isOpen), CHOICE_SEED), request.weights);
    const { id, optionId, profileId, weights, reason } = request;
    await insert(context, 'choices', {
      ...{ id, ticketId, optionId, profileId, weights, reason },
      method: taken.method,
      compoundId: taken.compoundId,
      offLabel: taken.offLabel,
      modelVersion: CHOICE_MODEL_VERSION,
      seed: CHOICE_SEED,
      scores: ranked.map(frozen),
      switching: switchingPoints(ranked, weights),
      at: context.now,
      byId: context.actor,
    });
    await context.models.tickets.update(
      {
        compoundId: taken.compoundId,
        choiceReason: reason.trim() || `Taken: ${taken.name}.`,
        version: stored.version + 1,
        changedAt: context.now,
      },
      { where: { id: ticketId }, transaction: context.transaction ?? null },
    );
  });
  return getTicket(context, ticketId);
}

export function isOpen(option: { judgement: CompoundJudgement }): boolean {
  return option.judgement.verdict !== 'blocked';
}

async function choicesOf(context: Context, ticketId: string): Promise<Choice[]> {
  const rows = await list(context, 'choices', { where: { ticketId }, order: [['at', 'DESC']] });
  return rows.map(({ byId, at, ...row }: Rows['choices']) => ({ ...row, at: at.toISOString(), by: byId }) as Choice);
}

function frozen({ option, rank, score, low, high, wins, terms }: RankedOption): FrozenScore {
  const points = Object.fromEntries(terms.map((term) => [term.criterion, term.points])) as Record<Criterion, number>;
  return { optionId: option.id, name: option.name, rank, score, low, high, wins, points };
}

/** The ticket's place on the bench, and what is near it. */
interface Place {
  readonly ticket: Ticket;
  readonly equipment: FittedEquipment;
  readonly revisions: Revisions;
  readonly part: PartFacts;
  readonly shop: Workshop;
  readonly substrates: readonly string[];
  readonly heads: readonly string[];
  readonly otherHeads: readonly InventoryItem<'head'>[];
  readonly compounds: readonly InventoryItem<'compound'>[];
  readonly blank: InventoryItem<'blank'> | null;
}

async function placeOf(context: Context, ticket: Ticket): Promise<Place> {
  const { equipment, revisions } = await loadEquipment(context, { ...ticket, compoundId: null });
  const stores = await listInventory(context, {});
  const ofKind = <K extends InventoryItem['kind']>(kind: K) =>
    stores.filter((item) => item.kind === kind) as InventoryItem<K>[];
  const heads = ofKind('head');
  const substrates = (await listInventory(context, { kind: 'substrate', retired: 1 })) as InventoryItem<'substrate'>[];
  const substrate = substrates.find(({ id }) => id === ticket.substrateId)!;
  const blanks = ofKind('blank').filter(({ body }) => body.substrateId === ticket.substrateId);
  return {
    ticket,
    equipment,
    revisions,
    part: { family: equipment.substrate.family, layer: equipment.substrate.layer },
    shop: await workshop(context),
    substrates: substratesNear(substrate, substrates),
    heads: heads.filter(({ body }) => body.wavelengthClass === equipment.head.wavelengthClass).map(({ id }) => id),
    otherHeads: heads.filter(({ id }) => id !== ticket.headId),
    compounds: ofKind('compound'),
    blank: blanks.sort((a, b) => b.changedAt.localeCompare(a.changedAt))[0] ?? null,
  };
}

interface Gathered {
  readonly compound: InventoryItem<'compound'> | null;
  readonly own: MarkEvidence;
  readonly near: MarkEvidence;
  readonly pairing: PairingRate;
  readonly plan: CoatPlan | null;
}

async function optionsOf(context: Context, place: Place): Promise<ChoiceOptionView[]> {
  const { ticket, equipment } = place;
  const shelf: (InventoryItem<'compound'> | null)[] = [...place.compounds, null];
  const gathered = await together(context, ...shelf.map((compound) => () => gather(context, place, compound)));
  const spread = pooledSpread(gathered.flatMap(({ own, near }) => [own, near]));
  const rates = gathered.flatMap(({ pairing }) => pairing.rate?.value ?? []);
  const job = (compound: InventoryItem<'compound'> | null): OptionJob => ({
    wantsDark: ticket.aim.tone === 'dark on light',
    marksDark: compound ? compound.body.marks === 'dark' : place.part.layer === 'bare',
    markAreaCm2: (ticket.markWidthMm * ticket.markHeightMm) / 100,
    blankMinor: place.blank?.body.priceMinor ?? 0,
    laserMinorPerMinute: equipment.machine.laserMinorPerMinute,
    labourMinorPerMinute: place.shop.labourMinorPerMinute,
    spread,
    ratesElsewhere: rates,
  });
  const coated = gathered
    .filter((entry): entry is Gathered & { compound: InventoryItem<'compound'> } => entry.compound !== null)
    .map((entry) => compoundOption(entry, place, job(entry.compound)));
  const bare = gathered.at(-1)!;
  const uncoated = METHODS.filter(isUncoated).map((method) => uncoatedOption(method, bare, place, job(null)));
  return [...coated, ...uncoated];
}

async function gather(context: Context, place: Place, compound: InventoryItem<'compound'> | null): Promise<Gathered> {
  const where = {
    ...place,
    revisions: { ...place.revisions, compound: compound?.revisionId ?? null },
    compoundId: compound?.id ?? null,
  };
  const pairing = await pairingRate(context, where);
  const { own, near } = await markEvidence(context, where);
  return { compound, own, near, pairing, plan: compound ? await coatPlan(context, compound, place.ticket) : null };
}

async function coatPlan(context: Context, compound: InventoryItem<'compound'>, ticket: Ticket): Promise<CoatPlan> {
  return coatPlanFor(compound, ticket, 1, learnTransfer(await transferSamples(context, compound.id)));
}

function compoundOption(
  entry: Gathered & { compound: InventoryItem<'compound'> },
  place: Place,
  job: OptionJob,
): ChoiceOptionView {
  const { compound, own, near, pairing } = entry;
  const { body } = compound;
  const plan = entry.plan!;
  const grams = plan.mass.value;
  const minor = (massG: number) => (plan.pricePerPiece.value * 100 * massG) / grams;
  const thinnerG = grams * (1 - sprayedMix(body).compoundShare);
  const facts: OptionFacts = {
    own,
    near,
    rate: pairing.rate,
    coat: {
      handling: body.handling,
      shelfLifeDays: body.shelfLifeDays,
      coats: body.coats,
      compoundMinor: {
        value: minor(grams),
        low: minor(plan.mass.interval?.low ?? grams),
        high: minor(plan.mass.interval?.high ?? grams),
      },
      compoundGrade: plan.pricePerPiece.grade,
      thinnerMinor: (thinnerG / THINNER_G_PER_L) * body.thinnerMinorPerL,
      soft: { availability: body.availability, help: body.help, trackRecord: body.trackRecord },
      ref: { kind: 'compound', id: compound.id, revision: compound.revision },
    },
  };
  const judgement = judgeCompound(body, place.part, place.equipment.head.wavelengthClass, proofOf(pairing));
  return {
    id: compound.id,
    name: body.name,
    method: body.form,
    compoundId: compound.id,
    about: [body.form, body.colour, body.thinnerRatio > 0 ? `cut 1:${body.thinnerRatio}` : '']
      .filter(Boolean)
      .join(', '),
    ...shared(entry, judgement),
    estimates: optionEstimates(facts, job),
    gramsPerPiece: grams - thinnerG,
  };
}

/** Grams of a litre of denatured alcohol, the usual thinner (handbook value for ethanol, 0.79). */
const THINNER_G_PER_L = 790;

function uncoatedOption(method: Method, entry: Gathered, place: Place, job: OptionJob): ChoiceOptionView {
  const { head } = place.equipment;
  const judgement = judgeMethod(
    method,
    place.part,
    { beam: head.wavelengthClass, ratedW: head.ratedW },
    proofOf(entry.pairing),
  );
  const facts: OptionFacts = { own: entry.own, near: entry.near, rate: entry.pairing.rate, coat: null };
  return {
    id: method,
    name: method.charAt(0).toUpperCase() + method.slice(1),
    method,
    compoundId: null,
    about: METHOD_WORDS[method],
    ...shared(entry, judgement),
    estimates: optionEstimates(facts, job),
    gramsPerPiece: null,
  };
}

function shared({ own, near, pairing }: Gathered, judgement: CompoundJudgement) {
  return {
    judgement,
    coupons: pairing.coupons,
    runs: own.refs.length,
    runsNear: near.refs.length,
    offLabel: judgement.verdict === 'warned' && judgement.reasons.some(({ code }) => code.endsWith('off-label')),
  };
}

function proofOf({ held }: PairingRate): { provedCoupons: number } {
  return { provedCoupons: held };
}

function methodViews(place: Place): MethodView[] {
  const facts = (head: FittedEquipment['head']) => ({ beam: head.wavelengthClass, ratedW: head.ratedW });
  return METHODS.map((method) => {
    const judgement = judgeMethod(method, place.part, facts(place.equipment.head));
    const elsewhere = place.otherHeads.filter(
      ({ body }) => judgeMethod(method, place.part, facts(body)).verdict !== 'blocked',
    );
    return {
      method,
      about: METHOD_WORDS[method],
      judgement,
      compounds: place.compounds.filter(({ body }) => body.form === method).map(({ body }) => body.name),
      elsewhere: judgement.verdict === 'blocked' ? elsewhere.map(({ body }) => body.name) : [],
    };
  });
}
