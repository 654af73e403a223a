import {
  isUncoated,
  judgeCompound,
  judgeMethod,
  METHOD_WORDS,
  METHODS,
  optionEstimates,
  NO_EVIDENCE,
  pooledSpread,
  type ChoiceEvidence,
  type CoatPlan,
  type CompoundJudgement,
  type MarkEvidence,
  type Method,
  type OptionFacts,
  type OptionJob,
  uncoatedWay,
} from '@unto/core';
import type { ChoiceOptionView, InventoryItem, MethodView } from '@unto/contract';
import { coatPlanFor, learntTransfer, sprayedMix, type FittedEquipment, sweptMark } from '@unto/domain';
import { transferSamples } from '../coat/weighings.js';
import { together, type Context } from '../db/context.js';
import { markEvidence } from './evidence.js';
import type { Place } from './place.js';
import { pairingRate, type PairingRate } from './rate.js';

interface Gathered {
  readonly compound: InventoryItem<'compound'> | null;
  readonly own: MarkEvidence;
  readonly near: MarkEvidence;
  readonly pairing: PairingRate;
  readonly plan: CoatPlan | null;
}

const NOTHING_KNOWN: Gathered = {
  compound: null,
  own: NO_EVIDENCE,
  near: NO_EVIDENCE,
  pairing: { rate: null, coupons: 0, held: 0, byEye: false },
  plan: null,
};

/** Every compound of the shop and every way without one, each with its judgement and what is known of it here. */
export async function optionsOf(context: Context, place: Place): Promise<ChoiceOptionView[]> {
  const { ticket, equipment } = place;
  const shelf: (InventoryItem<'compound'> | null)[] = [...place.compounds, null];
  const gathered = await together(context, ...shelf.map((compound) => () => gather(context, place, compound)));
  const spread = pooledSpread(gathered.flatMap(({ own, near }) => [own, near]));
  const rates = gathered.flatMap(({ pairing }) => pairing.rate?.value ?? []);
  const swept = sweptMark(ticket);
  const job = (compound: InventoryItem<'compound'> | null): OptionJob => ({
    wantsDark: ticket.aim.tone === 'dark on light',
    marksDark: compound ? compound.body.marks === 'dark' : place.part.layer === 'bare',
    markAreaCm2: (swept.widthMm * swept.heightMm) / 100,
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
  return { compound, own, near, pairing, plan: compound ? await coatPlan(context, compound, place) : null };
}

async function coatPlan(context: Context, compound: InventoryItem<'compound'>, place: Place): Promise<CoatPlan> {
  const { ticket, inHand } = place;
  const samples = await transferSamples(context, compound.id);
  const transfer = learntTransfer(samples, compound.body.application, context.actor);
  return coatPlanFor(compound, ticket, 1, transfer, inHand(compound.id));
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

/** A way without a coat; what was proved bare here speaks only for the way that this beam marks this part. */
function uncoatedOption(method: Method, bare: Gathered, place: Place, job: OptionJob): ChoiceOptionView {
  const { head } = place.equipment;
  const entry = method === uncoatedWay(place.part, head.wavelengthClass) ? bare : NOTHING_KNOWN;
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

function proofOf({ held, byEye }: PairingRate): ChoiceEvidence {
  return { provedCoupons: held, byEye };
}

/** Every method, whether it can be done on this head, and where else it could. */
export function methodViews(place: Place): MethodView[] {
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
