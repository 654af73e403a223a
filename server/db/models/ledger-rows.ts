import type { Grade } from '@unto/core';
import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { BOOLEAN, DATE, TEXT, UUID } = DataTypes;

/** What the ledger is looked through by, one row a run. Kept by the database itself as runs are logged, cleaned, judged and traced. */
export class LedgerRow extends Model<InferAttributes<LedgerRow>, InferCreationAttributes<LedgerRow>> {
  declare id: string;
  declare at: Date;
  declare ticketId: string;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare byId: string;
  declare grade: Grade;
  declare canLot: string | null;
  declare blankLot: string | null;
  declare judged: boolean;
  declare faulty: boolean;
}

export function ledgerRows(sequelize: Sequelize) {
  return class extends LedgerRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      at: DATE,
      ticketId: UUID,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      byId: UUID,
      grade: TEXT,
      canLot: TEXT,
      blankLot: TEXT,
      judged: BOOLEAN,
      faulty: BOOLEAN,
    },
    { sequelize, modelName: 'ledgerRows', tableName: 'ledger_rows' },
  );
}
