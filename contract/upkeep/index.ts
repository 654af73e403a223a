export * from './upkeep.js';
