import { array, number, object, mixed, string, type InferType } from 'yup';
import { figure } from '../evidence/index.js';
import {
  amount,
  flag,
  instant,
  list,
  oneOf,
  orNull,
  pageQuery,
  record,
  shape,
  uuid,
  who,
  whole,
  word,
  words,
  yes,
} from '../fields/index.js';
import type { Frozen } from '../routing/index.js';
import { INVENTORY_KINDS, type InventoryBodyOf, type InventoryKind } from './bodies.js';

const anyBody = () => mixed<InventoryBodyOf[InventoryKind]>().required('The body is missing.');

export const createInventoryItem = shape({
  id: uuid().label('id'),
  kind: oneOf('Kind', INVENTORY_KINDS),
  body: anyBody(),
});
/** What stands on a bench and in its cupboard, kept together or not at all; an item may belong to one before it. */
export const createInventoryItems = shape({
  items: array()
    .of(createInventoryItem)
    .label('Items')
    .required()
    .min(1, 'Name at least one.')
    .max(20, 'At most 20 together.'),
});
export const reviseInventoryItem = shape({ version: whole('Version', 1, 1e9), body: anyBody() });
export const retireInventoryItem = shape({ version: whole('Version', 1, 1e9), retired: yes('Retired') });
export const listInventoryQuery = object({
  ...pageQuery,
  kind: string<InventoryKind>()
    .oneOf([...INVENTORY_KINDS])
    .optional(),
  retired: number().min(0).max(1).oneOf([0, 1]).optional(),
});

export type CreateInventoryItem = Frozen<InferType<typeof createInventoryItem>>;
export type CreateInventoryItems = Frozen<InferType<typeof createInventoryItems>>;
export type ReviseInventoryItem = Frozen<InferType<typeof reviseInventoryItem>>;
export type RetireInventoryItem = Frozen<InferType<typeof retireInventoryItem>>;

export const exportInventoryQuery = object({
  kind: string<InventoryKind>()
    .oneOf([...INVENTORY_KINDS])
    .optional(),
});
/** A file of store items is taken as it is, whole. */
export const MAX_INVENTORY_BYTES = 20_000_000;
/** What is brought back: JSON of any kinds, or CSV of one. */
export const importInventoryQuery = object({
  format: oneOf('Format', ['csv', 'json'] as const),
  kind: string<InventoryKind>()
    .oneOf([...INVENTORY_KINDS])
    .optional(),
});
export type ImportInventoryQuery = Frozen<InferType<typeof importInventoryQuery>>;

/** What became of an import: nothing is kept when there is a problem. */
export const inventoryReport = record({
  created: amount(),
  revised: amount(),
  unchanged: amount(),
  problems: list(record({ line: amount(), message: words() })),
});
export type InventoryReport = Frozen<InferType<typeof inventoryReport>>;

/** What rests on an item, and for a container what is left in it. */
export const inventoryUse = record({
  tickets: amount(),
  coupons: amount(),
  runs: amount(),
  weighings: amount(),
  left: orNull(record({ grams: figure(), pieces: orNull(figure()), weighedAt: instant() })),
  /** Blanks on the shelf: as counted last, less those that were run or fired since. Null for everything else. */
  blanksLeft: orNull(amount()),
});
export type InventoryUse = Frozen<InferType<typeof inventoryUse>>;

/** One revision of an item. */
export const inventoryRevision = record({
  id: uuid(),
  itemId: uuid(),
  number: amount(),
  body: mixed<InventoryBodyOf[InventoryKind]>().required(),
  at: instant(),
  byId: who(),
});
export type InventoryRevision = Frozen<InferType<typeof inventoryRevision>>;

/** What a file of stores says that it is. */
export const INVENTORY_FILE = { format: 'unto-stores', version: 1 } as const;
/** A file of items of any kinds. */
export const inventoryFile = record({
  format: words(),
  version: amount(),
  items: list(
    record({
      id: uuid(),
      kind: word(INVENTORY_KINDS),
      retired: flag(),
      body: mixed<InventoryBodyOf[InventoryKind]>().required(),
    }),
  ),
});
export type InventoryFile = Frozen<InferType<typeof inventoryFile>>;
export type ListInventoryQuery = Frozen<InferType<typeof listInventoryQuery>>;
