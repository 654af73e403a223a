export * from './data-matrix.js';
export * from './label-strokes.js';
export { moduleRects, qrModules, type Modules, type PlacedModules, type SymbolKind } from './symbols.js';
