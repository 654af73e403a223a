import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Station } from '@unto/core';

const { DATE, DOUBLE, TEXT, UUID } = DataTypes;

/** Questions that the shop asks at a station. Append-only. */
export class StationQuestionRow extends Model<
  InferAttributes<StationQuestionRow>,
  InferCreationAttributes<StationQuestionRow>
> {
  declare id: string;
  declare station: Station;
  declare text: string;
  declare compoundId: string | null;
  declare substrateId: string | null;
  declare longerThanMm: number | null;
  declare caseId: string | null;
  declare at: Date;
  declare byId: string;
}

export function stationQuestions(sequelize: Sequelize) {
  return class extends StationQuestionRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      station: TEXT,
      text: TEXT,
      compoundId: UUID,
      substrateId: UUID,
      longerThanMm: DOUBLE,
      caseId: UUID,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'stationQuestions', tableName: 'station_questions' },
  );
}
