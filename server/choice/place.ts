import type { PartFacts } from '@unto/core';
import type { InventoryItem, Revisions, Ticket, Workshop } from '@unto/contract';
import type { FittedEquipment } from '@unto/domain';
import type { Context } from '../db/context.js';
import { listInventory, loadEquipment } from '../inventory/service.js';
import { workshop } from '../workshop/service.js';
import { substratesNear } from './evidence.js';

/** The ticket's place on the bench, and what is near it. */
export interface Place {
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

export async function placeOf(context: Context, ticket: Ticket): Promise<Place> {
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
