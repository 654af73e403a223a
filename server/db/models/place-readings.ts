import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { PlaceEntriesOf, PlaceKind, PlaceResultOf } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Readings of the Place station. Append-only. */
export class PlaceReadingRow extends Model<InferAttributes<PlaceReadingRow>, InferCreationAttributes<PlaceReadingRow>> {
  declare id: string;
  declare ticketId: string;
  declare kind: PlaceKind;
  declare headId: string;
  declare lensId: string;
  declare entries: PlaceEntriesOf[PlaceKind];
  declare result: PlaceResultOf[PlaceKind];
  declare decision: string;
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function placeReadings(sequelize: Sequelize) {
  return class extends PlaceReadingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      kind: TEXT,
      headId: UUID,
      lensId: UUID,
      entries: JSONB,
      result: JSONB,
      decision: TEXT,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'placeReadings', tableName: 'place_readings' },
  );
}
