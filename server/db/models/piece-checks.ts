import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CreatePieceCheck } from '@unto/contract';

const { DATE, INTEGER, TEXT, UUID } = DataTypes;

/** What a piece of a run stood. Append-only; the newest of a piece and test counts. */
export class PieceCheckRow extends Model<InferAttributes<PieceCheckRow>, InferCreationAttributes<PieceCheckRow>> {
  declare id: string;
  declare runId: string;
  declare piece: number;
  declare test: CreatePieceCheck['test'];
  declare strokes: number | null;
  declare result: CreatePieceCheck['result'];
  declare at: Date;
  declare byId: string;
}

export function pieceChecks(sequelize: Sequelize) {
  return class extends PieceCheckRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      runId: UUID,
      piece: INTEGER,
      test: TEXT,
      strokes: INTEGER,
      result: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'pieceChecks', tableName: 'piece_checks' },
  );
}
