import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { UUID } = DataTypes;

/** Runs in which pieces were made anew. Append-only. */
export class ReworkRunRow extends Model<InferAttributes<ReworkRunRow>, InferCreationAttributes<ReworkRunRow>> {
  declare runId: string;
  declare reworkId: string;
}

export function reworkRuns(sequelize: Sequelize) {
  return class extends ReworkRunRow {}.init(
    {
      runId: { type: UUID, primaryKey: true },
      reworkId: UUID,
    },
    { sequelize, modelName: 'reworkRuns', tableName: 'rework_runs' },
  );
}
