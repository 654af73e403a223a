import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

const { DATE, DOUBLE, INTEGER, TEXT, UUID } = DataTypes;

/** Shaking, drying, pot life and cooling times that run or ran. */
export class TimerRow extends Model<InferAttributes<TimerRow>, InferCreationAttributes<TimerRow>> {
  declare id: string;
  declare ticketId: string;
  declare kind: string;
  declare label: string;
  declare minimumS: number;
  declare tray: CreationOptional<number>;
  declare pieces: number | null;
  declare startedAt: Date;
  declare endedAt: Date | null;
  declare outcome: 'passed' | 'dropped' | null;
  declare byId: string;
}

export function timers(sequelize: Sequelize) {
  return class extends TimerRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      kind: TEXT,
      label: TEXT,
      minimumS: DOUBLE,
      tray: INTEGER,
      pieces: INTEGER,
      startedAt: DATE,
      endedAt: DATE,
      outcome: TEXT,
      byId: UUID,
    },
    { sequelize, modelName: 'timers', tableName: 'timers' },
  );
}
