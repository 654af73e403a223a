export * from './core-setting.js';
