import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

const { BOOLEAN, DATE, INTEGER, TEXT, UUID } = DataTypes;

/** Who works here. */
export class OperatorRow extends Model<InferAttributes<OperatorRow>, InferCreationAttributes<OperatorRow>> {
  declare id: string;
  declare name: string;
  declare role: string;
  declare version: CreationOptional<number>;
  declare retired: CreationOptional<boolean>;
  declare createdAt: Date;
}

export function operators(sequelize: Sequelize) {
  return class extends OperatorRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      name: TEXT,
      role: TEXT,
      version: INTEGER,
      retired: BOOLEAN,
      createdAt: DATE,
    },
    { sequelize, modelName: 'operators', tableName: 'operators' },
  );
}
