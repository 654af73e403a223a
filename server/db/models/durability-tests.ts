import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { ProtocolCode, ReadBy } from '@unto/core';

const { DATE, DATEONLY, DOUBLE, INTEGER, TEXT, UUID } = DataTypes;

/** Tests of what a mark stands. Append-only. */
export class DurabilityTestRow extends Model<
  InferAttributes<DurabilityTestRow>,
  InferCreationAttributes<DurabilityTestRow>
> {
  declare id: string;
  declare runId: string;
  declare piece: number;
  declare protocol: ProtocolCode;
  declare dose: number;
  declare beforeContrast: number | null;
  declare readBy: ReadBy | null;
  declare dueOn: string | null;
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function durabilityTests(sequelize: Sequelize) {
  return class extends DurabilityTestRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      runId: UUID,
      piece: INTEGER,
      protocol: TEXT,
      dose: INTEGER,
      beforeContrast: DOUBLE,
      readBy: TEXT,
      dueOn: DATEONLY,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'durabilityTests', tableName: 'durability_tests' },
  );
}
