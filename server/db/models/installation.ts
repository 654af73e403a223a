import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { BOOLEAN, UUID } = DataTypes;

/** What tells this installation from any other: one row. */
export class InstallationRow extends Model<InferAttributes<InstallationRow>, InferCreationAttributes<InstallationRow>> {
  declare alone: boolean;
  declare id: string;
}

export function installation(sequelize: Sequelize) {
  return class extends InstallationRow {}.init(
    { alone: { type: BOOLEAN, primaryKey: true }, id: UUID },
    { sequelize, modelName: 'installation', tableName: 'installation' },
  );
}
