import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { InventoryBodyOf, InventoryKind } from '@unto/contract';

const { DATE, INTEGER, JSONB, UUID } = DataTypes;

/** Revisions of an item. Append-only. */
export class InventoryRevisionRow extends Model<
  InferAttributes<InventoryRevisionRow>,
  InferCreationAttributes<InventoryRevisionRow>
> {
  declare id: string;
  declare itemId: string;
  declare number: number;
  declare body: InventoryBodyOf[InventoryKind];
  declare at: Date;
  declare byId: string;
}

export function inventoryRevisions(sequelize: Sequelize) {
  return class extends InventoryRevisionRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      itemId: UUID,
      number: INTEGER,
      body: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'inventoryRevisions', tableName: 'inventory_revisions' },
  );
}
