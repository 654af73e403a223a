export * from './substrate-sheets.js';
