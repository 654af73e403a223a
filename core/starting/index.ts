export * from './starting-range.js';
export * from './usual-settings.js';
