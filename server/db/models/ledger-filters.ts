import type { LedgerFilter } from '@unto/contract';
import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { BOOLEAN, DATE, JSONB, TEXT, UUID } = DataTypes;

/** Filters of the ledger that somebody gave a name. */
export class LedgerFilterRow extends Model<InferAttributes<LedgerFilterRow>, InferCreationAttributes<LedgerFilterRow>> {
  declare id: string;
  declare name: string;
  declare query: LedgerFilter['query'];
  declare retired: boolean;
  declare at: Date;
  declare byId: string;
}

export function ledgerFilters(sequelize: Sequelize) {
  return class extends LedgerFilterRow {}.init(
    { id: { type: UUID, primaryKey: true }, name: TEXT, query: JSONB, retired: BOOLEAN, at: DATE, byId: UUID },
    { sequelize, modelName: 'ledgerFilters', tableName: 'ledger_filters' },
  );
}
