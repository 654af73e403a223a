import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';
import type { Recipe } from '@unto/contract';

const { DATE, TEXT, UUID } = DataTypes;

/** Recipes suspended and put back into use. Append-only; the newest counts. */
export class RecipeStateRow extends Model<InferAttributes<RecipeStateRow>, InferCreationAttributes<RecipeStateRow>> {
  declare id: string;
  declare recipeId: string;
  declare state: Recipe['state']['state'];
  declare why: string;
  declare at: Date;
  declare byId: string;
}

export function recipeStates(sequelize: Sequelize) {
  return class extends RecipeStateRow {}.init(
    { id: { type: UUID, primaryKey: true }, recipeId: UUID, state: TEXT, why: TEXT, at: DATE, byId: UUID },
    { sequelize, modelName: 'recipeStates', tableName: 'recipe_states' },
  );
}
