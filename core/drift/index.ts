export * from './control-chart.js';
export * from './drift.js';
export * from './factors.js';
export * from './ledger-trend.js';
