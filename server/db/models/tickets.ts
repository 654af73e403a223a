import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Aim } from '@unto/contract';

const { BIGINT, BOOLEAN, DATE, DATEONLY, DOUBLE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** Jobs. */
export class TicketRow extends Model<InferAttributes<TicketRow>, InferCreationAttributes<TicketRow>> {
  declare id: string;
  declare number: number;
  declare version: number;
  declare title: string;
  declare pieces: number;
  declare markWidthMm: number;
  declare markHeightMm: number;
  declare coatMarginMm: number;
  declare substrateId: string;
  declare headId: string;
  declare lensId: string;
  declare compoundId: string | null;
  declare choiceReason: string;
  declare aim: Aim;
  declare foodUse: boolean;
  declare wantedOn: string | null;
  declare note: string;
  declare state: 'open' | 'done';
  declare createdAt: Date;
  declare changedAt: Date;
  declare restartedAt: Date | null;
  declare restartedSequence: CreationOptional<number | null>;
  declare layoutId: CreationOptional<string | null>;
  declare sweptWidthMm: CreationOptional<number | null>;
  declare sweptHeightMm: CreationOptional<number | null>;
  declare byId: string;
}

export function tickets(sequelize: Sequelize) {
  return class extends TicketRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      number: INTEGER,
      version: INTEGER,
      title: TEXT,
      pieces: INTEGER,
      markWidthMm: DOUBLE,
      markHeightMm: DOUBLE,
      coatMarginMm: DOUBLE,
      substrateId: UUID,
      headId: UUID,
      lensId: UUID,
      compoundId: UUID,
      choiceReason: TEXT,
      aim: JSONB,
      foodUse: BOOLEAN,
      wantedOn: DATEONLY,
      note: TEXT,
      state: TEXT,
      createdAt: DATE,
      changedAt: DATE,
      restartedAt: DATE,
      restartedSequence: BIGINT,
      layoutId: UUID,
      sweptWidthMm: DOUBLE,
      sweptHeightMm: DOUBLE,
      byId: UUID,
    },
    { sequelize, modelName: 'tickets', tableName: 'tickets' },
  );
}
