import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';

const { BOOLEAN, DATE, INTEGER, UUID } = DataTypes;

/** Compound, substrate, head and lens of scrubbed coupons, with what became of their cells. A view. */
export class WindowPairingRow extends Model<InferAttributes<WindowPairingRow>> {
  declare id: string;
  declare number: number;
  declare newestAt: Date;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare lensId: string;
  declare coupons: number;
  declare cells: number;
  declare holds: number;
  /** Some of its coupons bear other compounds too: their cells are counted with them. */
  declare shared: boolean;
}

export function windowPairings(sequelize: Sequelize) {
  return class extends WindowPairingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      number: INTEGER,
      newestAt: DATE,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      lensId: UUID,
      coupons: INTEGER,
      cells: INTEGER,
      holds: INTEGER,
      shared: BOOLEAN,
    },
    { sequelize, modelName: 'windowPairings', tableName: 'window_pairings' },
  );
}
