import type { Recipe } from '@unto/contract';
import { DataTypes, Model, type InferAttributes, type Sequelize } from 'sequelize';

const { BOOLEAN, DATE, INTEGER, TEXT, UUID } = DataTypes;

/** Recipes, and whether each is in use or suspended. A view. */
export class StandingRecipeRow extends Model<InferAttributes<StandingRecipeRow>> {
  declare id: string;
  declare number: number;
  declare kind: string;
  declare substrateId: string;
  declare compoundId: string | null;
  declare headId: string;
  declare lensId: string;
  /** By a window, not by a step test on one piece, and from pictures or by eye. */
  declare proved: boolean;
  declare state: Recipe['state']['state'];
  declare suspended: boolean;
  declare why: string | null;
  declare since: Date | null;
  declare sinceBy: string | null;
}

export function standingRecipes(sequelize: Sequelize) {
  return class extends StandingRecipeRow {}.init(
    {
      id: { type: UUID, primaryKey: true },
      number: INTEGER,
      kind: TEXT,
      substrateId: UUID,
      compoundId: UUID,
      headId: UUID,
      lensId: UUID,
      proved: BOOLEAN,
      state: TEXT,
      suspended: BOOLEAN,
      why: TEXT,
      since: DATE,
      sinceBy: UUID,
    },
    { sequelize, modelName: 'standingRecipes', tableName: 'standing_recipes' },
  );
}
