import { number, object, mixed, string, type InferType } from 'yup';
import { oneOf, uuid, whole, yes } from '../fields/index.js';
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
