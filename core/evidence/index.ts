export * from './figure.js';
export * from './formulas.js';
export * from './usual-value.js';
export * from './tells-most.js';
