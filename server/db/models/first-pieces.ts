import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CreateFirstPiece } from '@unto/contract';

const { DATE, TEXT, UUID } = DataTypes;

/** How the first piece of a marking stood rinse and scrub. Append-only; the newest counts. */
export class FirstPieceRow extends Model<InferAttributes<FirstPieceRow>, InferCreationAttributes<FirstPieceRow>> {
  declare id: string;
  declare markingId: string;
  declare result: CreateFirstPiece['result'];
  declare at: Date;
  declare byId: string;
}

export function firstPieces(sequelize: Sequelize) {
  return class extends FirstPieceRow {}.init(
    { id: { type: UUID, primaryKey: true }, markingId: UUID, result: TEXT, at: DATE, byId: UUID },
    { sequelize, modelName: 'firstPieces', tableName: 'first_pieces' },
  );
}
