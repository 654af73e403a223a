import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { ArtworkKind, ArtworkRecord } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Files of artwork as brought to a ticket. Append-only. */
export class ArtworkRow extends Model<InferAttributes<ArtworkRow>, InferCreationAttributes<ArtworkRow>> {
  declare id: string;
  declare ticketId: string;
  declare fileHash: string;
  declare name: string;
  declare kind: ArtworkKind;
  declare entered: ArtworkRecord['entered'];
  declare measure: ArtworkRecord['measure'];
  declare said: readonly string[];
  declare at: Date;
  declare byId: string;
}

export function artworks(sequelize: Sequelize) {
  return class extends ArtworkRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      fileHash: TEXT,
      name: TEXT,
      kind: TEXT,
      entered: JSONB,
      measure: JSONB,
      said: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'artworks', tableName: 'artworks' },
  );
}
