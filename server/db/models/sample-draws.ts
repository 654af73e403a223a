import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, INTEGER, JSONB, UUID } = DataTypes;

/** Pieces of a run that were drawn for the scrub. Append-only; the newest counts. */
export class SampleDrawRow extends Model<InferAttributes<SampleDrawRow>, InferCreationAttributes<SampleDrawRow>> {
  declare id: string;
  declare runId: string;
  declare scrub: number;
  declare seed: number;
  declare pieces: number[];
  declare at: Date;
  declare byId: string;
}

export function sampleDraws(sequelize: Sequelize) {
  return class extends SampleDrawRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      runId: UUID,
      scrub: INTEGER,
      seed: INTEGER,
      pieces: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'sampleDraws', tableName: 'sample_draws' },
  );
}
