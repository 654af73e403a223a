import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { InventoryKind } from '@unto/contract';

const { BOOLEAN, INTEGER, TEXT, UUID } = DataTypes;

/** Things a shop keeps, each with its newest revision. */
export class InventoryItemRow extends Model<
  InferAttributes<InventoryItemRow>,
  InferCreationAttributes<InventoryItemRow>
> {
  declare id: string;
  declare kind: InventoryKind;
  declare version: number;
  declare retired: boolean;
  declare revisionId: string;
}

export function inventoryItems(sequelize: Sequelize) {
  return class extends InventoryItemRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      kind: TEXT,
      version: INTEGER,
      retired: BOOLEAN,
      revisionId: UUID,
    },
    { sequelize, modelName: 'inventoryItems', tableName: 'inventory_items' },
  );
}
