import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';

const { DATE, DOUBLE, INTEGER, UUID } = DataTypes;

/** What a container weighed last, and what was laid out of it. A view. */
export class ContainerUseRow extends Model<InferAttributes<ContainerUseRow>> {
  declare containerId: string;
  declare nowG: number;
  declare weighedAt: Date;
  declare massAppliedG: number;
  declare pieces: number;
}

export function containerUses(sequelize: Sequelize) {
  return class extends ContainerUseRow {}.init(
    {
      containerId: { type: UUID, primaryKey: true },
      nowG: DOUBLE,
      weighedAt: DATE,
      massAppliedG: DOUBLE,
      pieces: INTEGER,
    },
    { sequelize, modelName: 'containerUses', tableName: 'container_use' },
  );
}
