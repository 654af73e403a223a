import { array, mixed, type InferType } from 'yup';
import { instant, oneOf, shape, uuid, who, whole, yes } from '../fields/index.js';
import { INVENTORY_KINDS, type InventoryBodyOf, type InventoryKind } from '../inventory/bodies.js';
import { ticket } from '../tickets/tickets.js';
import { createOperator } from '../workshop/workshop.js';
import type { Frozen } from '../routing/index.js';

const revision = shape({
  id: uuid(),
  number: whole('Revision', 1, 1e9),
  body: mixed<InventoryBodyOf[InventoryKind]>().required(),
  at: instant(),
  by: uuid(),
});
const MOST = 100_000;
const item = shape({
  id: uuid(),
  kind: oneOf('Kind', INVENTORY_KINDS),
  retired: yes('Retired'),
  revisions: array().of(revision).required().min(1).max(MOST),
});

/** What the runs of a ledger file refer to, so that it can be brought into a shop that has none of it. */
export const ledgerAround = shape({
  operators: array().of(createOperator).required().max(MOST),
  items: array().of(item).required().max(MOST),
  tickets: array()
    .of(ticket.shape({ by: who() }))
    .required()
    .max(MOST),
});
export type LedgerAround = Frozen<InferType<typeof ledgerAround>>;
