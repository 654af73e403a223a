import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { INTEGER, JSONB } = DataTypes;

/** Settings of the whole shop: one row. */
export class WorkshopRow extends Model<InferAttributes<WorkshopRow>, InferCreationAttributes<WorkshopRow>> {
  declare id: number;
  declare version: number;
  declare body: Record<string, unknown>;
}

export function workshop(sequelize: Sequelize) {
  return class extends WorkshopRow {}.init(
    {
      id: { type: INTEGER, primaryKey: true },
      version: INTEGER,
      body: JSONB,
    },
    { sequelize, modelName: 'workshop', tableName: 'workshop' },
  );
}
