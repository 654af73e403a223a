import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { TEXT, UUID } = DataTypes;

/** Every record a client made: the same id with the same body is a retry, with another body a conflict. */
export class CreationRow extends Model<InferAttributes<CreationRow>, InferCreationAttributes<CreationRow>> {
  declare id: string;
  declare resource: string;
  declare bodyHash: string;
}

export function creations(sequelize: Sequelize) {
  return class extends CreationRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      resource: TEXT,
      bodyHash: TEXT,
    },
    { sequelize, modelName: 'creations', tableName: 'creations' },
  );
}
