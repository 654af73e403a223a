import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { RemarkShows } from '@unto/contract';

const { BOOLEAN, DATE, TEXT, UUID } = DataTypes;

/** Notes and pictures beside a ticket or one of its runs. */
export class RemarkRow extends Model<InferAttributes<RemarkRow>, InferCreationAttributes<RemarkRow>> {
  declare id: string;
  declare ticketId: string;
  declare runId: string | null;
  declare words: string;
  declare fileHash: string | null;
  declare shows: RemarkShows | null;
  declare retired: boolean;
  declare at: Date;
  declare byId: string;
}

export function remarks(sequelize: Sequelize) {
  return class extends RemarkRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      runId: UUID,
      words: TEXT,
      fileHash: TEXT,
      shows: TEXT,
      retired: BOOLEAN,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'remarks', tableName: 'remarks' },
  );
}
