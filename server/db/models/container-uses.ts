import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';

const { DATE, DOUBLE, UUID } = DataTypes;

/** What a container weighed last, and what was laid out of it. A view. */
export class ContainerUseRow extends Model<InferAttributes<ContainerUseRow>> {
  declare containerId: string;
  declare nowG: number;
  declare weighedAt: Date;
  declare massAppliedG: number;
  declare areaMm2: number;
  declare lastPieceMm2: number;
}

export function containerUses(sequelize: Sequelize) {
  return class extends ContainerUseRow {}.init(
    {
      containerId: { type: UUID, primaryKey: true },
      nowG: DOUBLE,
      weighedAt: DATE,
      massAppliedG: DOUBLE,
      areaMm2: { type: DOUBLE, field: 'area_mm2' },
      lastPieceMm2: { type: DOUBLE, field: 'last_piece_mm2' },
    },
    { sequelize, modelName: 'containerUses', tableName: 'container_use' },
  );
}
