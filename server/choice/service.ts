import {
  CHOICE_MODEL_VERSION,
  drawValueScores,
  rankOptions,
  switchingPoints,
  type CompoundJudgement,
  type Criterion,
  type RankedOption,
} from '@unto/core';
import type { Choice, ChoicePage, CreateChoice, FrozenScore, Ticket } from '@unto/contract';
import { type Context, createOnce, find, insert, list, NEWEST_FIRST, requireVersion } from '../db/context.js';
import type { Rows } from '../db/models/index.js';
import { fault } from '../errors/api-error.js';
import { stockByCompound } from '../inventory/use.js';
import { getTicket } from '../tickets/service.js';
import { yearlyUse } from './evidence.js';
import { methodViews, optionsOf } from './options.js';
import { placeOf } from './place.js';
import { CHOICE_SEED } from './rate.js';

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
  const rows = await list(context, 'choices', { where: { ticketId }, order: NEWEST_FIRST });
  return rows.map(({ byId, at, ...row }: Rows['choices']) => ({ ...row, at: at.toISOString(), by: byId }) as Choice);
}

function frozen({ option, rank, score, low, high, wins, terms }: RankedOption): FrozenScore {
  const points = Object.fromEntries(terms.map((term) => [term.criterion, term.points])) as Record<Criterion, number>;
  return { optionId: option.id, name: option.name, rank, score, low, high, wins, points };
}
