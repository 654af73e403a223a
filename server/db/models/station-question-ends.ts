import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, TEXT, UUID } = DataTypes;

/** Questions that are asked no more. Append-only. */
export class StationQuestionEndRow extends Model<
  InferAttributes<StationQuestionEndRow>,
  InferCreationAttributes<StationQuestionEndRow>
> {
  declare id: string;
  declare questionId: string;
  declare why: string;
  declare at: Date;
  declare byId: string;
}

export function stationQuestionEnds(sequelize: Sequelize) {
  return class extends StationQuestionEndRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      questionId: UUID,
      why: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'stationQuestionEnds', tableName: 'station_question_ends' },
  );
}
