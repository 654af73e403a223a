export * from './mark-setting.js';
export * from './same-setting.js';
export * from './setting-words.js';
