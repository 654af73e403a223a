export * from './csv.js';
export * from './dxf.js';
export * from './loose-table.js';
export * from './gcode.js';
export * from './xml.js';
