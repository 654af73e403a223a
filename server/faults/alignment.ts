import { alignTwoPoints } from '@unto/core';
import type { CreateRework } from '@unto/contract';
import { atField, fault } from '../errors/api-error.js';

type Points = NonNullable<CreateRework['alignment']>;

/** Two points that lie further from each other than drawn by more than this are not the same two, mm. Common practice, no source. */
const MOST_LONGER_MM = 1;

/** How a piece lies under the head by two points of its old mark: its lower left corner there, and how it is turned about it. */
export function alignedPose({ drawn, found }: Points): { xMm: number; yMm: number; turnDeg: number } {
  const pair = (points: Points['drawn']) => [points[0]!, points[1]!] as const;
  const { zero, turnDegrees, longerMm } = atField('alignment', () => alignTwoPoints(pair(drawn), pair(found)));
  if (Math.abs(longerMm) > MOST_LONGER_MM)
    throw fault(
      'alignment',
      `The two points lie ${Math.abs(longerMm).toFixed(1)} mm ${longerMm > 0 ? 'further apart' : 'closer together'} than drawn: take the same two.`,
    );
  return { ...zero, turnDeg: turnDegrees };
}
