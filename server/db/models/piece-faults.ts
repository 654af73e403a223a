import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CreatePieceFault } from '@unto/contract';

const { DATE, INTEGER, JSONB, TEXT, UUID } = DataTypes;

/** What is wrong with a piece of a run, and where. Append-only; the newest word of a piece counts, none takes it back. */
export class PieceFaultRow extends Model<InferAttributes<PieceFaultRow>, InferCreationAttributes<PieceFaultRow>> {
  declare id: string;
  declare runId: string;
  declare piece: number;
  declare fault: CreatePieceFault['fault'];
  declare spot: CreatePieceFault['spot'];
  declare at: Date;
  declare byId: string;
}

export function pieceFaults(sequelize: Sequelize) {
  return class extends PieceFaultRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      runId: UUID,
      piece: INTEGER,
      fault: TEXT,
      spot: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'pieceFaults', tableName: 'piece_faults' },
  );
}
