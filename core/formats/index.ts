export * from './csv.js';
export * from './dxf.js';
