import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { FaultCase } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Faults that are looked for, on a run, a coupon or a coat, with what the record said then. Append-only. */
export class FaultCaseRow extends Model<InferAttributes<FaultCaseRow>, InferCreationAttributes<FaultCaseRow>> {
  declare id: string;
  declare ticketId: string;
  declare kind: FaultCase['kind'];
  declare runId: string | null;
  declare couponId: string | null;
  declare coatId: string | null;
  declare pieces: readonly number[];
  declare record: FaultCase['record'];
  declare at: Date;
  declare byId: string;
}

export function faultCases(sequelize: Sequelize) {
  return class extends FaultCaseRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      kind: TEXT,
      runId: UUID,
      couponId: UUID,
      coatId: UUID,
      pieces: JSONB,
      record: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'faultCases', tableName: 'fault_cases' },
  );
}
