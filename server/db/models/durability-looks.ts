import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { CreateDurabilityLook } from '@unto/contract';

const { DATE, DATEONLY, DOUBLE, INTEGER, TEXT, UUID } = DataTypes;

/** Looks at a mark under test. Append-only; the newest of a test stands. */
export class DurabilityLookRow extends Model<
  InferAttributes<DurabilityLookRow>,
  InferCreationAttributes<DurabilityLookRow>
> {
  declare id: string;
  declare testId: string;
  declare doseDone: number;
  declare result: CreateDurabilityLook['result'];
  declare afterContrast: number | null;
  declare nextOn: string | null;
  declare at: Date;
  declare byId: string;
}

export function durabilityLooks(sequelize: Sequelize) {
  return class extends DurabilityLookRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      testId: UUID,
      doseDone: INTEGER,
      result: TEXT,
      afterContrast: DOUBLE,
      nextOn: DATEONLY,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'durabilityLooks', tableName: 'durability_looks' },
  );
}
