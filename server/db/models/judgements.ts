import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

const { DATE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** How a run came out. Append-only; the newest counts. */
export class JudgementRow extends Model<InferAttributes<JudgementRow>, InferCreationAttributes<JudgementRow>> {
  declare id: string;
  declare runId: string;
  declare contrastStep: number;
  declare stepsApart: CreationOptional<number | null>;
  declare evenness: string;
  declare piecesGood: number;
  declare faults: readonly string[];
  declare tests: readonly { test: string; result: string }[];
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function judgements(sequelize: Sequelize) {
  return class extends JudgementRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      runId: UUID,
      contrastStep: INTEGER,
      stepsApart: INTEGER,
      evenness: TEXT,
      piecesGood: INTEGER,
      faults: JSONB,
      tests: JSONB,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'judgements', tableName: 'judgements' },
  );
}
