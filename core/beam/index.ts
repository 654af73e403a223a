export * from './delivered-power.js';
export * from './dose.js';
export * from './pulses.js';
export * from './spot.js';
