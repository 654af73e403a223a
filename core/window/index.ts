export { systematic } from './boundary-posterior.js';
export * from './compare-windows.js';
export * from './cross-section.js';
export type { EarlierWindow } from './earlier-windows.js';
export * from './expected-gain.js';
export * from './fit-window.js';
export * from './focus-as-power.js';
export * from './hull.js';
export * from './lesson-words.js';
export * from './match-piece.js';
export * from './measure-field.js';
export * from './next-block.js';
export * from './ordered-logit.js';
export { MIXED, type Mix } from './own-mix.js';
export * from './promise.js';
export {
  BINDING_WORDS,
  BINDINGS,
  judgeSetting,
  quickestSetting,
  type Binding,
  type SettingChoice,
  type SettingJob,
} from './setting-search.js';
export * from './seen-effects.js';
export * from './setting-from-window.js';
export * from './speed-margin.js';
export * from './window-checks.js';
export * from './window-map.js';
export * from './window-terms.js';
export * from './window-fit.js';
