import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { FaultFinding } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** What a fault was, and what was done. Append-only; the newest of a case counts. */
export class FaultFindingRow extends Model<InferAttributes<FaultFindingRow>, InferCreationAttributes<FaultFindingRow>> {
  declare id: string;
  declare caseId: string;
  declare causes: FaultFinding['causes'];
  declare way: FaultFinding['way'];
  declare plan: FaultFinding['plan'];
  declare chances: FaultFinding['chances'];
  declare remedies: FaultFinding['remedies'];
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function faultFindings(sequelize: Sequelize) {
  return class extends FaultFindingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      caseId: UUID,
      causes: JSONB,
      way: TEXT,
      plan: JSONB,
      chances: JSONB,
      remedies: JSONB,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'faultFindings', tableName: 'fault_findings' },
  );
}
