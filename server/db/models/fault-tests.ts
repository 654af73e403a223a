import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { FaultTestKey, FaultTestResult } from '@unto/core';

const { DATE, TEXT, UUID } = DataTypes;

/** Quick tests of a fault, as they came out. Append-only. */
export class FaultTestRow extends Model<InferAttributes<FaultTestRow>, InferCreationAttributes<FaultTestRow>> {
  declare id: string;
  declare caseId: string;
  declare test: FaultTestKey;
  declare result: FaultTestResult;
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function faultTests(sequelize: Sequelize) {
  return class extends FaultTestRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      caseId: UUID,
      test: TEXT,
      result: TEXT,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'faultTests', tableName: 'fault_tests' },
  );
}
