export * from './measure.js';
export * from './read-dxf.js';
export * from './read-gcode.js';
export * from './read-image.js';
export * from './read-svg.js';
export * from './shapes.js';
export * from './spans.js';
export * from './warnings.js';
