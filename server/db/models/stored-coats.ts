import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CoatHandling } from '@unto/core';

const { DATE, INTEGER, TEXT, UUID } = DataTypes;

/** Coated pieces laid on the shelf. */
export class StoredCoatRow extends Model<InferAttributes<StoredCoatRow>, InferCreationAttributes<StoredCoatRow>> {
  declare id: string;
  declare ticketId: string;
  declare compoundId: string;
  declare compoundRevisionId: string;
  declare pieces: number;
  declare place: string;
  declare note: string;
  declare handling: CoatHandling;
  declare storedAt: Date;
  declare keepUntil: Date | null;
  declare byId: string;
  declare endedAt: Date | null;
  declare outcome: 'taken up' | 'rinsed off' | null;
  declare endReason: string;
  declare endedById: string | null;
}

export function storedCoats(sequelize: Sequelize) {
  return class extends StoredCoatRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      compoundId: UUID,
      compoundRevisionId: UUID,
      pieces: INTEGER,
      place: TEXT,
      note: TEXT,
      handling: TEXT,
      storedAt: DATE,
      keepUntil: DATE,
      byId: UUID,
      endedAt: DATE,
      outcome: TEXT,
      endReason: TEXT,
      endedById: UUID,
    },
    { sequelize, modelName: 'storedCoats', tableName: 'stored_coats' },
  );
}
