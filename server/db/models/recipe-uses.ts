import { DataTypes, Model, type InferAttributes, type InferCreationAttributes, type Sequelize } from 'sequelize';

const { DATE, UUID } = DataTypes;

/** Recipes that tickets took into use. Append-only; the newest counts. */
export class RecipeUseRow extends Model<InferAttributes<RecipeUseRow>, InferCreationAttributes<RecipeUseRow>> {
  declare id: string;
  declare ticketId: string;
  declare recipeId: string;
  declare at: Date;
  declare byId: string;
}

export function recipeUses(sequelize: Sequelize) {
  return class extends RecipeUseRow {}.init(
    { id: { type: UUID, primaryKey: true }, ticketId: UUID, recipeId: UUID, at: DATE, byId: UUID },
    { sequelize, modelName: 'recipeUses', tableName: 'recipe_uses' },
  );
}
