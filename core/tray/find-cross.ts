import type { PlanePoint } from '../place/fit-circle.js';
import { pictureToCard } from '../target/find-card.js';
import { between, levelPicture, ON_CARD, type LevelPicture, type ReadablePicture } from '../target/level-picture.js';
import type { Point2 } from '../imaging/homography.js';
import { lightNear } from './light-near.js';

/** A cross is looked for so far about where somebody pointed, mm, and its arms are followed so far. */
const REACH_MM = 5;
const ARM_MM = 3;
/** Pixels it is looked at in, mm, and steps along an arm. */
const PX_MM = 0.15;
const ALONG = 12;
/** Turns that arms may lie in, degrees; a cross is the same after a quarter. */
const TURN_STEP = 5;
/** Its arms are darker or lighter than the ground between them by this much at least, L*. */
const LEAST_L = 6;

/**
 * The middle of a burnt cross near a place of the picture (px), mm on the card: where two lines at right angles stand out most from the
 * ground between them. Null where none does: whoever pointed there knows better.
 */
export function crossNear(picture: ReadablePicture, at: Point2): PlanePoint | null {
  const about = pictureToCard(picture.pose, at);
  const side = 2 * (REACH_MM + ARM_MM);
  const [xMm, yMm] = [about.x - side / 2, about.y - side / 2];
  const lit = lightNear(picture, { xMm: about.x, yMm: about.y });
  const level = levelPicture(lit, ON_CARD, { xMm, yMm, widthMm: side, heightMm: side, pxMm: PX_MM });
  const best = strongest(level);
  if (best.strength < LEAST_L) return null;
  return { xMm: xMm + best.x, yMm: yMm + best.y };
}

interface FoundCross {
  readonly x: number;
  readonly y: number;
  readonly turn: number;
  readonly strength: number;
}

function strongest(level: LevelPicture): FoundCross {
  let best: FoundCross = { x: 0, y: 0, turn: 0, strength: -Infinity };
  for (let turn = 0; turn < 90; turn += TURN_STEP)
    for (let y = ARM_MM; y <= ARM_MM + 2 * REACH_MM; y += 2 * PX_MM)
      for (let x = ARM_MM; x <= ARM_MM + 2 * REACH_MM; x += 2 * PX_MM) {
        const strength = strengthAt(level, x, y, turn);
        if (strength > best.strength) best = { x, y, strength, turn };
      }
  for (let step = PX_MM; step > 0.02; step /= 2)
    for (const [dx, dy, dt] of [
      [step, 0, 0],
      [-step, 0, 0],
      [0, step, 0],
      [0, -step, 0],
      [0, 0, 10 * step],
      [0, 0, -10 * step],
    ] as const) {
      const [x, y, turn]: readonly [number, number, number] = [best.x + dx, best.y + dy, best.turn + dt];
      const strength = strengthAt(level, x, y, turn);
      if (strength > best.strength) best = { x, y, turn, strength };
    }
  return best;
}

/** How much the weakest of four arms stands out from the ground between them, L*: one line alone is no cross. */
function strengthAt(level: LevelPicture, x: number, y: number, turnDeg: number): number {
  const arm = (degrees: number) => {
    const turn = ((turnDeg + degrees) * Math.PI) / 180;
    let sum = 0;
    for (let k = 1; k <= ALONG; k += 1) {
      const r = (ARM_MM * k) / ALONG;
      sum += between(level, x + r * Math.cos(turn), y + r * Math.sin(turn), (i) => level.l[i]!);
    }
    return sum / ALONG;
  };
  const ground = (arm(45) + arm(135) + arm(225) + arm(315)) / 4;
  const arms = [arm(0), arm(90), arm(180), arm(270)];
  return Math.max(Math.min(...arms.map((one) => ground - one)), Math.min(...arms.map((one) => one - ground)));
}
