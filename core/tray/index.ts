export * from './read-tray.js';
export * from './judge-tray.js';
export * from './bed-picture.js';
export { crossNear } from './find-cross.js';
export { MARK_PARTS, type MarkReading } from './read-marked-piece.js';
export type { MarkOffset } from './align-mark.js';
export type { PieceSize } from './find-pieces.js';
