import { tellsMost } from '@unto/core';
import type { InventoryItem, Ticket, TodayMeasurement } from '@unto/contract';
import { coatPlanFor, learntTransfer } from '@unto/domain';
import { transferSamples } from '../coat/weighings.js';
import type { Context } from '../db/context.js';
import { itemsById } from '../inventory/service.js';

/** So many compounds of open tickets are looked at: those of the newest. */
const COMPOUNDS = 5;

/**
 * The one measurement at the bench that would tell most of the coats that open tickets plan; null where nothing rests on what is only
 * usual.
 */
export async function measurementThatTells(
  context: Context,
  lines: readonly { readonly ticket: Ticket }[],
): Promise<TodayMeasurement | null> {
  const tickets = lines.map(({ ticket }) => ticket).filter(({ compoundId }) => compoundId !== null);
  const ids = [...new Set(tickets.map(({ compoundId }) => compoundId!))].slice(0, COMPOUNDS);
  const compounds = await itemsById(context, ids);
  const found: (TodayMeasurement & { readonly gain: number })[] = [];
  for (const id of ids) {
    const compound = compounds.get(id) as InventoryItem<'compound'>;
    if (!compound.body.usual.length) continue;
    const ticket = tickets.find(({ compoundId }) => compoundId === id)!;
    const samples = await transferSamples(context, id);
    const transfer = learntTransfer(samples, compound.body.application, context.actor);
    const { mass } = coatPlanFor(compound, ticket, ticket.pieces, transfer);
    const best = tellsMost(mass);
    if (!best) continue;
    const span = ({ low, high }: { low: number; high: number }) => Math.log(high / low);
    found.push({
      words: best.words,
      of: `${compound.body.name} for ${ticket.title}`,
      ...{ now: mass.interval!, then: best.interval, unit: mass.unit },
      to: best.label === 'share reaching the part' ? `/tickets/${ticket.id}/coat` : `/stores/${id}`,
      gain: span(mass.interval!) - span(best.interval),
    });
  }
  const [first] = found.sort((a, b) => b.gain - a.gain);
  if (!first) return null;
  const { gain: _gain, ...measurement } = first;
  return measurement;
}
