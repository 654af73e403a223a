export * from './burn-setup.js';
export * from './fitted-equipment.js';
export * from './near.js';
export * from './reading.js';
