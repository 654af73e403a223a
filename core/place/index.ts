export * from './fit-circle.js';
export * from './fit-waist.js';
export * from './rotary.js';
export * from './sag.js';
export * from './warp.js';
