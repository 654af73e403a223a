import { randomUUID } from 'node:crypto';
import { REMEDIES, type Cause, type Remedy } from '@unto/core';
import type { CreateFaultFinding, FaultPage, FaultFinding } from '@unto/contract';
import { remedyApplies, sameRemedy } from '@unto/domain';
import { insert, type Context } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { inventoryItem, retireInventoryItem, reviseInventoryItem } from '../inventory/service.js';
import { createRecipe } from '../recipes/service.js';
import { setState } from '../recipes/use.js';
import { recipeById, recipesOf } from '../recipes/views.js';
import { getTicket } from '../tickets/service.js';
import { weighingOf } from './coat-record.js';
import type { Subject } from './subject.js';

type Changes = Pick<FaultPage, 'recipe' | 'compound' | 'container'>;
type Taken = FaultFinding['remedies'][number];

/** What a remedy could change: the recipe it was run under, its compound, the can it came from. */
export async function changeable(context: Context, subject: Subject): Promise<Changes> {
  const [inUse] = await recipesOf(context, await getTicket(context, subject.ticket.id));
  const recipeId = subject.run?.recipeId ?? inUse?.id;
  const recipe = recipeId ? await recipeById(context, recipeId) : null;
  const compound = subject.compoundId ? await inventoryItem(context, 'compound', subject.compoundId) : null;
  const weighing = subject.compoundId ? await weighingOf(context, subject) : null;
  const can = weighing ? await inventoryItem(context, 'container', weighing.containerId) : null;
  return {
    recipe: recipe && {
      ...{ id: recipe.id, number: recipe.number, air: recipe.air, suspended: recipe.state.state === 'suspended' },
    },
    compound: compound && { id: compound.id, name: compound.body.name, airAssist: compound.body.airAssist },
    container: can && { id: can.id, name: can.body.name, retired: can.retired },
  };
}

/** Takes remedies over, one after another, each as whoever settled the fault. @throws invalid-input for one that has nothing to change */
export async function takeRemedies(
  context: Context,
  subject: Subject,
  { causes, remedies, caseId }: Pick<CreateFaultFinding, 'causes' | 'remedies'> & { readonly caseId: string },
): Promise<Taken[]> {
  const changes = await changeable(context, subject);
  const taken: Taken[] = [];
  for (const [i, remedy] of remedies.entries()) {
    const path = `remedies[${i}]`;
    if (!remedyApplies(remedy.kind, changes)) throw fault(path, 'There is nothing left for this to change.');
    taken.push(await take(context, { subject, changes, remedy: known(causes, remedy as Remedy, path), caseId }));
  }
  return taken;
}

/** A remedy as the table has it: what is asked at a station is not worded by whoever sends it. */
function known(causes: readonly Cause[], remedy: Remedy, path: string): Remedy {
  const found = causes.flatMap((cause) => REMEDIES[cause]).find((one) => sameRemedy(one, remedy));
  if (!found) throw fault(path, 'That is no remedy of what it was.');
  return found;
}

interface Taking {
  readonly subject: Subject;
  readonly changes: Changes;
  readonly remedy: Remedy;
  readonly caseId: string;
}

async function take(context: Context, taking: Taking): Promise<Taken> {
  const { remedy, changes, subject } = taking;
  const { kind } = remedy;
  if (kind === 'question') return askAtStation(context, taking);
  if (kind === 'recipe air off') return recipeAirOff(context, changes.recipe!, subject.ticket);
  if (kind === 'compound air off') {
    const { id, version, body } = await inventoryItem(context, 'compound', changes.compound!.id);
    await reviseInventoryItem(context, id, { version, body: { ...body, airAssist: 'off' } });
    return { kind, words: `${body.name} in Stores: air off`, recordId: id };
  }
  if (kind === 'retire container') {
    const { id, version, body } = await inventoryItem(context, 'container', changes.container!.id);
    await retireInventoryItem(context, id, { version, retired: true });
    return { kind, words: `${body.name} set aside in Stores`, recordId: id };
  }
  const { id, number } = changes.recipe!;
  await setState(context, id, { id: randomUUID(), state: 'suspended', why: 'a fault was traced to its setting' });
  return { kind, words: `Recipe v${number} suspended until a check coupon`, recordId: id };
}

/** The same setting with the air off, as a version of its own: its grade is worked out anew from the same coupons. */
async function recipeAirOff(
  context: Context,
  { id }: { readonly id: string },
  ticket: Rows['tickets'],
): Promise<Taken> {
  const {
    kind,
    couponIds,
    seed,
    valid,
    passes,
    hatches,
    angleDeg,
    fill,
    focusOffsetMm,
    frequencyKHz,
    pulseNs,
    ...rest
  } = await recipeById(context, id);
  const { directions, powerMode, extraction, powerPercent, speedMmPerS, intervalMm } = rest;
  const made = await createRecipe(context, {
    ...{
      id: randomUUID(),
      ticketId: ticket.id,
      kind,
      couponIds: [...couponIds],
      seed,
      powerPercent,
      speedMmPerS,
      intervalMm,
    },
    ...{ passes, hatches, angleDeg, fill, focusOffsetMm, frequencyKHz, pulseNs, directions, powerMode, extraction },
    ...{ air: 'off', coats: valid?.coats ?? undefined, pairing: undefined },
  });
  return { kind: 'recipe air off', words: `Recipe v${made.number}: air off`, recordId: made.id };
}

/** Marks at least so long are asked what a long one taught: rounded down to ten. */
const longAs = ({ markWidthMm, markHeightMm }: Rows['tickets']) =>
  Math.max(10, Math.floor((0.7 * Math.max(markWidthMm, markHeightMm)) / 10) * 10);

async function askAtStation(context: Context, { remedy, subject, caseId }: Taking): Promise<Taken> {
  const { station, text, of } = remedy.question!;
  const id = randomUUID();
  await insert(context, 'stationQuestions', {
    ...{ id, station, text, caseId, at: context.now, byId: context.actor },
    compoundId: of === 'compound' ? subject.compoundId : null,
    substrateId: of === 'substrate' ? subject.substrateId : null,
    longerThanMm: of === 'long parts' ? longAs(subject.ticket) : null,
  });
  return { kind: 'question', words: `${station[0]!.toUpperCase()}${station.slice(1)} asks: ${text}`, recordId: id };
}
