import type { InferAttributes, Model, ModelStatic, Sequelize } from 'sequelize';
import { operators } from './operators.js';
import { workshop } from './workshop.js';
import { creations } from './creations.js';
import { edits } from './edits.js';
import { inventoryItems } from './inventory-items.js';
import { inventoryRevisions } from './inventory-revisions.js';
import { tickets } from './tickets.js';
import { cards } from './cards.js';
import { checks } from './checks.js';
import { timers } from './timers.js';
import { weighings } from './weighings.js';
import { coupons } from './coupons.js';
import { couponPictures } from './coupon-pictures.js';
import { burns } from './burns.js';
import { testSteps } from './test-steps.js';
import { readings } from './readings.js';
import { recipes } from './recipes.js';
import { recipeStates } from './recipe-states.js';
import { recipeUses } from './recipe-uses.js';
import { standingRecipes } from './standing-recipes.js';
import { windowPairings } from './window-pairings.js';
import { runs } from './runs.js';
import { markings } from './markings.js';
import { pieceEvents } from './piece-events.js';
import { firstPieces } from './first-pieces.js';
import { sampleDraws } from './sample-draws.js';
import { pieceChecks } from './piece-checks.js';
import { cleanings } from './cleanings.js';
import { installation } from './installation.js';
import { judgements } from './judgements.js';
import { statedSettings } from './stated-settings.js';
import { remarks } from './remarks.js';
import { choices } from './choices.js';
import { identifications } from './identifications.js';
import { placeReadings } from './place-readings.js';
import { fittings } from './fittings.js';
import { sheets } from './sheets.js';
import { artworks } from './artworks.js';
import { durabilityLooks } from './durability-looks.js';
import { durabilityTests } from './durability-tests.js';
import { pieceFaults } from './piece-faults.js';
import { trayReadings } from './tray-readings.js';
import { faultCases } from './fault-cases.js';
import { faultLooks } from './fault-looks.js';
import { faultTests } from './fault-tests.js';
import { faultFindings } from './fault-findings.js';
import { settledFaults } from './settled-faults.js';
import { reworks } from './reworks.js';
import { reworkRuns } from './rework-runs.js';
import { stationQuestions } from './station-questions.js';
import { stationQuestionEnds } from './station-question-ends.js';
import { upkeeps } from './upkeeps.js';
import { ledgerFilters } from './ledger-filters.js';
import { ledgerRows } from './ledger-rows.js';
import { verdicts } from './verdicts.js';
import { layouts } from './layouts.js';
import { coatReadings } from './coat-readings.js';
import { coatPictures } from './coat-pictures.js';
import { storedCoats } from './stored-coats.js';
import { storedFiles } from './stored-files.js';
import { standingRuns } from './standing-runs.js';
import { standingWeighings } from './standing-weighings.js';
import { ticketProgress } from './ticket-progress.js';
import { couponStages } from './coupon-stages.js';
import { cellOutcomes } from './cell-outcomes.js';
import { containerUses } from './container-uses.js';

/** Every table and view by its name in the code; a model file a table. Migrations own the schema, nothing here creates one. */
const MODELS = {
  operators,
  workshop,
  creations,
  edits,
  inventoryItems,
  inventoryRevisions,
  tickets,
  cards,
  checks,
  timers,
  weighings,
  coupons,
  couponPictures,
  burns,
  testSteps,
  readings,
  recipes,
  recipeStates,
  recipeUses,
  standingRecipes,
  windowPairings,
  runs,
  markings,
  pieceEvents,
  firstPieces,
  sampleDraws,
  pieceChecks,
  cleanings,
  installation,
  judgements,
  statedSettings,
  remarks,
  choices,
  identifications,
  placeReadings,
  fittings,
  sheets,
  artworks,
  durabilityTests,
  durabilityLooks,
  pieceFaults,
  trayReadings,
  verdicts,
  ledgerRows,
  ledgerFilters,
  faultCases,
  faultLooks,
  faultTests,
  faultFindings,
  settledFaults,
  reworks,
  reworkRuns,
  stationQuestions,
  stationQuestionEnds,
  upkeeps,
  layouts,
  coatReadings,
  coatPictures,
  storedCoats,
  storedFiles,
  standingRuns,
  standingWeighings,
  ticketProgress,
  couponStages,
  cellOutcomes,
  containerUses,
};

export type Models = { readonly [T in keyof typeof MODELS]: ReturnType<(typeof MODELS)[T]> };

/** Rows as they stand in PostgreSQL, one type a table. */
export type Rows = {
  [T in keyof Models]: Models[T] extends ModelStatic<infer M extends Model> ? InferAttributes<M> : never;
};

/** Sequelize models of all tables and views on one connection, with what hangs together. */
export function defineModels(sequelize: Sequelize): Models {
  const models = Object.fromEntries(
    Object.entries(MODELS).map(([table, define]) => [table, define(sequelize)]),
  ) as unknown as Models;
  associate(models);
  return models;
}

/** Rows that are read together. */
function associate(models: Models): void {
  models.inventoryItems.belongsTo(models.inventoryRevisions, { as: 'revision', foreignKey: 'revisionId' });
  models.timers.belongsTo(models.tickets, { as: 'ticket', foreignKey: 'ticketId' });
  models.storedCoats.belongsTo(models.tickets, { as: 'ticket', foreignKey: 'ticketId' });
  models.standingWeighings.belongsTo(models.tickets, { as: 'ticket', foreignKey: 'ticketId' });
  models.coupons.belongsTo(models.tickets, { as: 'ticket', foreignKey: 'ticketId' });
  models.coupons.hasOne(models.couponStages, { as: 'stage', foreignKey: 'couponId' });
  models.tickets.hasOne(models.ticketProgress, { as: 'progress', foreignKey: 'ticketId' });
  models.runs.belongsTo(models.tickets, { as: 'ticket', foreignKey: 'ticketId' });
}
