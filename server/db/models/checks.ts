import type { Station } from '@unto/core';
import type { Check } from '@unto/contract';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

const { BIGINT, DATE, TEXT, UUID } = DataTypes;

/** What was ticked off or acknowledged at a station. Append-only. */
export class CheckRow extends Model<InferAttributes<CheckRow>, InferCreationAttributes<CheckRow>> {
  declare id: string;
  declare ticketId: string;
  declare station: Station;
  declare kind: Check['kind'];
  declare code: string;
  /** Its place in the order of all that happened. */
  declare sequence: CreationOptional<number>;
  declare at: Date;
  declare byId: string;
}

export function checks(sequelize: Sequelize) {
  return class extends CheckRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      station: TEXT,
      kind: TEXT,
      code: TEXT,
      sequence: BIGINT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'checks', tableName: 'checks' },
  );
}
