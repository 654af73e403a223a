export * from './checks.js';
export * from './station-line.js';
