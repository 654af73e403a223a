export * from './median.js';
export * from './moments.js';
export * from './next-value.js';
export * from './partial-pooling.js';
export * from './student-t.js';
export * from './fisher-exact.js';
export * from './gaussian-process.js';
export * from './mann-kendall.js';
