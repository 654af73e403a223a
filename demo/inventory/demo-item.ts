import type { InventoryBodyOf, InventoryKind } from '@unto/contract';

/** A store item of the demo under a short key, from which its identifier is made. */
export interface DemoItem<K extends InventoryKind = InventoryKind> {
  readonly key: string;
  readonly kind: K;
  readonly body: InventoryBodyOf[K];
}

export type Refer = (key: string) => string;
