import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Layout, LayoutEntries } from '@unto/contract';

const { DATE, JSONB, UUID } = DataTypes;

/** How pieces of a ticket are marked. Append-only. */
export class LayoutRow extends Model<InferAttributes<LayoutRow>, InferCreationAttributes<LayoutRow>> {
  declare id: string;
  declare ticketId: string;
  declare artworkId: string | null;
  declare entered: LayoutEntries;
  declare measure: Layout['measure'];
  declare at: Date;
  declare byId: string;
}

export function layouts(sequelize: Sequelize) {
  return class extends LayoutRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      ticketId: UUID,
      artworkId: UUID,
      entered: JSONB,
      measure: JSONB,
      at: DATE,
      byId: UUID,
    },
    { sequelize, modelName: 'layouts', tableName: 'layouts' },
  );
}
