import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CreateUpkeep } from '@unto/contract';

const { DATE, TEXT, UUID } = DataTypes;

/** What was done to keep heads and lenses as they were. Append-only. */
export class UpkeepRow extends Model<InferAttributes<UpkeepRow>, InferCreationAttributes<UpkeepRow>> {
  declare id: string;
  declare itemId: string;
  declare what: CreateUpkeep['what'];
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function upkeeps(sequelize: Sequelize) {
  return class extends UpkeepRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      itemId: UUID,
      what: TEXT,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'upkeeps', tableName: 'upkeeps' },
  );
}
