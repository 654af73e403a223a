export * from './fit-window.js';
export * from './focus-as-power.js';
export * from './hull.js';
export * from './ordered-logit.js';
export * from './setting-from-window.js';
export * from './speed-margin.js';
export * from './window-map.js';
export * from './window-terms.js';
