import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CoatMapJudgement } from '@unto/core';
import type { PictureEntries } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Pictures of dry coats, judged from their maps. Append-only. */
export class CoatPictureRow extends Model<InferAttributes<CoatPictureRow>, InferCreationAttributes<CoatPictureRow>> {
  declare id: string;
  declare ticketId: string;
  declare weighingId: string | null;
  declare entries: PictureEntries;
  declare judgement: CoatMapJudgement;
  declare decision: 'accepted' | 'touch up' | 'rinsed off';
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function coatPictures(sequelize: Sequelize) {
  return class extends CoatPictureRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      weighingId: UUID,
      entries: JSONB,
      judgement: JSONB,
      decision: TEXT,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'coatPictures', tableName: 'coat_pictures' },
  );
}
