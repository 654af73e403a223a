import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, DOUBLE, TEXT, UUID } = DataTypes;

/** How a run was cleaned. Append-only; the newest counts. */
export class CleaningRow extends Model<InferAttributes<CleaningRow>, InferCreationAttributes<CleaningRow>> {
  declare id: string;
  declare runId: string;
  declare method: string;
  declare minutes: number;
  declare residue: string;
  declare residueAt: string | null;
  declare rinseWater: 'collected' | 'down the drain' | null;
  declare at: Date;
  declare byId: string;
}

export function cleanings(sequelize: Sequelize) {
  return class extends CleaningRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      runId: UUID,
      method: TEXT,
      minutes: DOUBLE,
      residue: TEXT,
      residueAt: TEXT,
      rinseWater: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'cleanings', tableName: 'cleanings' },
  );
}
