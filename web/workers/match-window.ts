import { fitWindow, matchPiece, type Match, type PieceReading } from '@unto/core';
import { familyJob, proofOf, settingIn } from '@unto/domain';
import { earlierOf } from './earlier';
import type { ComparedWindow, MatchedSetting, MatchedWindow } from './computations';

/** What comes nearest a piece in a window, with what its proof is worth. */
export function matchWindow(window: ComparedWindow, target: PieceReading, seed: number): MatchedWindow {
  const { family, equipment, job, otherRevisions, settable, teachings } = window;
  const earlier = earlierOf(teachings);
  const fit = fitWindow({ cells: family.cells, equipment, seed, earlier });
  const terms = { fit, equipment, tolerance: job.tolerance, bound: job.bound, otherRevisions, settable, earlier };
  const judged = (match: Match | null): MatchedSetting | null =>
    match && {
      ...match,
      choice: {
        ...match.choice,
        proof: proofOf(family, settingIn(family, match.choice), terms),
        contrast: match.expected.contrast,
      },
    };
  const { nearest, proven } = matchPiece(fit, familyJob(family, job), { cells: family.cells, target });
  return { nearest: judged(nearest), proven: judged(proven) };
}
