export * from './cautions-for.js';
