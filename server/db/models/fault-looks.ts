import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Fault, FaultSpot } from '@unto/core';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** What a fault looks like. Append-only; the newest of a case counts. */
export class FaultLookRow extends Model<InferAttributes<FaultLookRow>, InferCreationAttributes<FaultLookRow>> {
  declare id: string;
  declare caseId: string;
  declare faults: readonly Fault[];
  declare spots: readonly FaultSpot[];
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function faultLooks(sequelize: Sequelize) {
  return class extends FaultLookRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      caseId: UUID,
      faults: JSONB,
      spots: JSONB,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'faultLooks', tableName: 'fault_looks' },
  );
}
