import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, JSONB, UUID } = DataTypes;

/** Settings somebody stated. Append-only. */
export class StatedSettingRow extends Model<
  InferAttributes<StatedSettingRow>,
  InferCreationAttributes<StatedSettingRow>
> {
  declare id: string;
  declare body: Record<string, unknown>;
  declare computed: object;
  declare at: Date;
  declare byId: string;
}

export function statedSettings(sequelize: Sequelize) {
  return class extends StatedSettingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      body: JSONB,
      computed: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'statedSettings', tableName: 'stated_settings' },
  );
}
