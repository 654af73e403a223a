import type { InventoryBodyOf, InventoryKind } from '@unto/contract';

/** What only somebody at the bench can say of an item: its name, what it belongs to, and where its values come from. */
type OwnWord = 'name' | 'machineId' | 'headId' | 'compoundId' | 'substrateId' | 'ofKind' | 'usual';

/** Values usual for a kind. */
export type Usual<K extends InventoryKind> = Omit<InventoryBodyOf[K], OwnWord>;

/** A kind of thing to choose from: no maker, no product. `name` is how it is called on screen, `about` what tells it from its like. */
export interface ShelfKind<K extends InventoryKind> {
  readonly key: string;
  readonly name: string;
  readonly about: string;
  readonly body: Usual<K>;
}
