import { literal, Op } from 'sequelize';
import type { PartFacts } from '@unto/core';
import type { ContainerBody, InventoryItem, Revisions, Ticket, Workshop } from '@unto/contract';
import { containerInHand, substratesNear, type FittedEquipment } from '@unto/domain';
import { type Context, list, NEWEST_FIRST } from '../db/context.js';
import { listInventory, loadEquipment } from '../inventory/service.js';
import { leftInContainers } from '../inventory/use.js';
import { shopDay, workshop } from '../workshop/service.js';

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
  /** The container of a compound that is taken next. */
  readonly inHand: (compoundId: string) => ContainerBody | null;
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
  const containers = ofKind('container');
  const left = await leftInContainers(context, containers);
  const today = await shopDay(context);
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
    blank: (await usedBlank(context, ticket.substrateId, blanks)) ?? null,
    inHand: (compoundId) =>
      containerInHand(
        containers.filter(({ body }) => body.compoundId === compoundId),
        (id) => left.get(id)?.grams.value,
        today,
      ),
  };
}

/** The blank that the newest run on a substrate was made of; where none was noted, the newest on the shelf. */
async function usedBlank(
  context: Context,
  substrateId: string,
  blanks: readonly InventoryItem<'blank'>[],
): Promise<InventoryItem<'blank'> | undefined> {
  const [run] = await list(context, 'runs', {
    where: { [Op.and]: [{ substrateId }, literal(`bench -> 'blank' ->> 'id' IS NOT NULL`)] },
    order: NEWEST_FIRST,
    limit: 1,
    attributes: ['bench'],
  });
  const newest = [...blanks].sort((a, b) => b.changedAt.localeCompare(a.changedAt))[0];
  return blanks.find(({ id }) => id === run?.bench?.blank?.id) ?? newest;
}
