import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { FileType } from '@unto/contract';

const { DATE, INTEGER, TEXT, UUID } = DataTypes;

/** Kept files by the hash of their content. Append-only. */
export class StoredFileRow extends Model<InferAttributes<StoredFileRow>, InferCreationAttributes<StoredFileRow>> {
  declare id: string;
  declare hash: string;
  declare name: string;
  declare mediaType: FileType;
  declare bytes: number;
  declare at: Date;
  declare byId: string;
}

export function storedFiles(sequelize: Sequelize) {
  return class extends StoredFileRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      hash: TEXT,
      name: TEXT,
      mediaType: TEXT,
      bytes: INTEGER,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'storedFiles', tableName: 'stored_files' },
  );
}
