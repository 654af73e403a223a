import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, TEXT, UUID } = DataTypes;

/** Who works here. */
export class OperatorRow extends Model<InferAttributes<OperatorRow>, InferCreationAttributes<OperatorRow>> {
  declare id: string;
  declare name: string;
  declare role: string;
  declare createdAt: Date;
}

export function operators(sequelize: Sequelize) {
  return class extends OperatorRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      name: TEXT,
      role: TEXT,
      createdAt: DATE,
    },
    { sequelize, modelName: 'operators', tableName: 'operators' },
  );
}
