import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Verdict } from '@unto/contract';

const { BOOLEAN, DATE, INTEGER, TEXT, UUID } = DataTypes;

/** What was decided on a ticket's pieces. Append-only; the newest stands. */
export class VerdictRow extends Model<InferAttributes<VerdictRow>, InferCreationAttributes<VerdictRow>> {
  declare id: string;
  declare ticketId: string;
  declare verdict: Verdict['verdict'];
  declare exceptions: string;
  declare grade: Verdict['grade'];
  declare good: number;
  declare pieces: number;
  declare belowProved: boolean;
  declare at: Date;
  declare byId: string;
}

export function verdicts(sequelize: Sequelize) {
  return class extends VerdictRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      verdict: TEXT,
      exceptions: TEXT,
      grade: TEXT,
      good: INTEGER,
      pieces: INTEGER,
      belowProved: BOOLEAN,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'verdicts', tableName: 'verdicts' },
  );
}
