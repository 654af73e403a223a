import type { CardPrint, CardSize } from '@unto/core';
import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, DOUBLE, JSONB, TEXT, UUID } = DataTypes;

/** What the prints of the shop's reference cards throw back. Append-only. */
export class CardRow extends Model<InferAttributes<CardRow>, InferCreationAttributes<CardRow>> {
  declare id: string;
  declare size: CardSize;
  declare print: CardPrint;
  declare white: number | null;
  declare fileHash: string | null;
  declare at: Date;
  declare byId: string;
}

export function cards(sequelize: Sequelize) {
  return class extends CardRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      size: TEXT,
      print: JSONB,
      white: DOUBLE,
      fileHash: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'cards', tableName: 'cards' },
  );
}
