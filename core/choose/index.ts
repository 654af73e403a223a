export * from './judge-compound.js';
export * from './vocabulary.js';
