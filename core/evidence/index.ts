export * from './figure.js';
export * from './formulas.js';
