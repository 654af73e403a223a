export * from './cheapest-containers.js';
export * from './cost-per-piece.js';
export * from './yield-posterior.js';
export * from './yield-share.js';
export * from './cost-bridge.js';
