import { matchPiece, type Match, type PieceReading } from '@unto/core';
import { judgedWindow } from './judged-window';
import type { ComparedWindow, MatchedSetting, MatchedWindow } from './computations';

/** What comes nearest a piece in a window, with what its proof is worth. */
export function matchWindow(window: ComparedWindow, target: PieceReading, seed: number): MatchedWindow {
  const { fit, job, offered } = judgedWindow(window, seed);
  const { nearest, proven } = matchPiece(fit, job, { cells: window.family.cells, target });
  const judged = (match: Match | null): MatchedSetting | null =>
    match && { ...match, choice: offered(match.choice, match.expected.contrast) };
  return { nearest: judged(nearest), proven: judged(proven) };
}
