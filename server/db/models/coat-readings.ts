import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Figure, InspectionFinding } from '@unto/core';
import type { CoatEntriesOf, CoatReadingKind } from '@unto/contract';

const { DATE, JSONB, TEXT, UUID } = DataTypes;

/** Coats read by comb and eye. Append-only. */
export class CoatReadingRow extends Model<InferAttributes<CoatReadingRow>, InferCreationAttributes<CoatReadingRow>> {
  declare id: string;
  declare ticketId: string;
  declare compoundId: string;
  declare compoundRevisionId: string;
  declare weighingId: string | null;
  declare kind: CoatReadingKind;
  declare entries: CoatEntriesOf[CoatReadingKind];
  declare film: Figure;
  declare findings: readonly InspectionFinding[];
  declare note: string;
  declare at: Date;
  declare byId: string;
}

export function coatReadings(sequelize: Sequelize) {
  return class extends CoatReadingRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      compoundId: UUID,
      compoundRevisionId: UUID,
      weighingId: UUID,
      kind: TEXT,
      entries: JSONB,
      film: JSONB,
      findings: JSONB,
      note: TEXT,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'coatReadings', tableName: 'coat_readings' },
  );
}
