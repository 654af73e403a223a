import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Changes that were made and what was answered, by request. */
export class EditRow extends Model<InferAttributes<EditRow>, InferCreationAttributes<EditRow>> {
  declare id: string;
  declare whatHash: string;
  declare answer: unknown;
  declare at: Date;
}

export function edits(sequelize: Sequelize) {
  return class extends EditRow {}.init(
    { id: { type: UUID, primaryKey: true }, whatHash: TEXT, answer: JSONB, at: DATE },
    { sequelize, modelName: 'edits', tableName: 'edits' },
  );
}
