export * from './coat-plan.js';
export * from './contents-left.js';
export * from './film-band.js';
export * from './judge-coat-picture.js';
export * from './judge-coat.js';
export * from './read-timer-at.js';
export * from './sprayed-mix.js';
export * from './work-out-weighing.js';
