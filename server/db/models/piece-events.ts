import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CreatePieceEvent } from '@unto/contract';

const { DATE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** What was said of the pieces of a marking. Append-only; the newest of a piece counts. */
export class PieceEventRow extends Model<InferAttributes<PieceEventRow>, InferCreationAttributes<PieceEventRow>> {
  declare id: string;
  declare markingId: string;
  declare piece: number;
  declare what: CreatePieceEvent['what'];
  declare why: CreatePieceEvent['why'];
  declare spot: { readonly x: number; readonly y: number } | null;
  declare at: Date;
  declare byId: string;
}

export function pieceEvents(sequelize: Sequelize) {
  return class extends PieceEventRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      markingId: UUID,
      piece: INTEGER,
      what: TEXT,
      why: TEXT,
      spot: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'pieceEvents', tableName: 'piece_events' },
  );
}
