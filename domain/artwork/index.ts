export * from './artwork-kind.js';
export * from './piece-name.js';
export * from './piece-size.js';
export * from './piece-numbers.js';
export * from './piece.js';
export * from './program.js';
export * from './read.js';
export * from './swept-mark.js';
