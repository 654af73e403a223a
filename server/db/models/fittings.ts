import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { HeadChangeStep } from '@unto/core';

const { BIGINT, DATE, JSONB, TEXT, UUID } = DataTypes;

/** Heads and lenses put on a machine. Append-only. */
export class FittingRow extends Model<InferAttributes<FittingRow>, InferCreationAttributes<FittingRow>> {
  declare id: string;
  declare machineId: string;
  declare headId: string;
  declare lensId: string;
  declare ticketId: string | null;
  declare work: 'mark' | 'cut';
  declare steps: readonly HeadChangeStep[];
  /** Its place in the order of all that happened. */
  declare sequence: CreationOptional<number>;
  declare at: Date;
  declare byId: string;
}

export function fittings(sequelize: Sequelize) {
  return class extends FittingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      machineId: UUID,
      headId: UUID,
      lensId: UUID,
      ticketId: UUID,
      work: TEXT,
      steps: JSONB,
      sequence: BIGINT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'fittings', tableName: 'fittings' },
  );
}
