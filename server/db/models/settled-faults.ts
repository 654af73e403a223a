import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Cause, Fault } from '@unto/core';
import type { FaultCase } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Cases whose cause was found, as they stand. A view. */
export class SettledFaultRow extends Model<InferAttributes<SettledFaultRow>, InferCreationAttributes<SettledFaultRow>> {
  declare id: string;
  declare ticketId: string;
  declare kind: FaultCase['kind'];
  declare subjectId: string;
  declare compoundId: string | null;
  declare substrateId: string;
  declare byId: string;
  declare causes: readonly Cause[];
  declare faults: readonly Fault[];
  declare at: Date;
}

export function settledFaults(sequelize: Sequelize) {
  return class extends SettledFaultRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      kind: TEXT,
      subjectId: UUID,
      compoundId: UUID,
      substrateId: UUID,
      byId: UUID,
      causes: JSONB,
      faults: JSONB,
      at: DATE,
    },
    { sequelize, modelName: 'settledFaults', tableName: 'settled_faults' },
  );
}
