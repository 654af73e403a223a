export * from './practice.js';
