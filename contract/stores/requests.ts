import { number, object, mixed, string, type InferType } from 'yup';
import type { Figure } from '@unto/core';
import { oneOf, text, uuid, whole, yes } from '../fields/index.js';
import { STORE_KINDS, type StoreBodyOf, type StoreKind } from './bodies.js';

const anyBody = () => mixed<StoreBodyOf[StoreKind]>().required('The body is missing.');

export const createStoreItem = object({
  id: uuid().label('id'),
  kind: oneOf('Kind', STORE_KINDS),
  body: anyBody(),
}).noUnknown();
export const reviseStoreItem = object({ version: whole('Version', 1, 1e9), body: anyBody() }).noUnknown();
export const retireStoreItem = object({ version: whole('Version', 1, 1e9), retired: yes('Retired') }).noUnknown();
export const listStoreQuery = object({
  kind: string()
    .oneOf([...STORE_KINDS])
    .optional(),
  retired: number().oneOf([0, 1]).optional(),
});

export type CreateStoreItem = InferType<typeof createStoreItem>;
export type ReviseStoreItem = InferType<typeof reviseStoreItem>;
export type RetireStoreItem = InferType<typeof retireStoreItem>;

export const exportStoresQuery = object({
  kind: string()
    .oneOf([...STORE_KINDS])
    .optional(),
});
/** A file of store items brought back: JSON of any kinds, or CSV of one. */
export const importStores = object({
  format: oneOf('Format', ['csv', 'json'] as const),
  kind: oneOf('Kind', STORE_KINDS).optional(),
  text: text('File', 20_000_000),
}).noUnknown();
export type ImportStores = InferType<typeof importStores>;

/** What became of an import: nothing is kept when there is a problem. */
export interface StoresReport {
  readonly created: number;
  readonly revised: number;
  readonly unchanged: number;
  readonly problems: readonly { readonly line: number; readonly message: string }[];
}

/** What rests on an item, and for a container what is left in it. */
export interface StoreUse {
  readonly tickets: number;
  readonly coupons: number;
  readonly runs: number;
  readonly weighings: number;
  readonly left: { readonly grams: Figure; readonly pieces: Figure | null; readonly weighedAt: string } | null;
}
