import type { CouponFrame, CouponLayout } from '../coupon/layout.js';
import { labelStrokes, type Point } from '../lettering/label-strokes.js';
import { levelPicture, ON_CARD, type LevelPicture, type ReadablePicture } from '../target/level-picture.js';
import { fitHomography, project, type Homography, type Point2 } from '../imaging/homography.js';

/** How a coupon lies on the card. */
export interface CouponPose {
  /** Coupon mm → card mm. */
  readonly toCard: Homography;
  /** Outer corners of the corner marks on the card, mm, from the lower left one counter-clockwise. */
  readonly corners: readonly Point2[];
  /** Whether the corner marks were seen there; false leaves them to be put right by hand. */
  readonly sure: boolean;
  /** How many of the four corner marks were seen. */
  readonly seen: number;
}

/** Where a mark is looked for: a place on its stroke, mm off the coupon's middle, and the direction across it. */
interface Probe {
  readonly x: number;
  readonly y: number;
  readonly nx: number;
  readonly ny: number;
}

/** Lines of a corner mark; the second lies near its middle. */
const MARK_LINES = 4;
const OFF_MM = 1;
/** A difference of lightness counts up to this: an edge of a cell is no better than a mark. */
const MOST_STEP = 12;
/** A corner mark is seen where its strokes differ by this in lightness, most of them the same way. */
const SEEN = { step: 2.5, share: 0.72 } as const;
/** How far from square to the card a coupon is looked for, in what steps, degrees, and how far over the window's edge, mm: as coupons mostly lie, and else any way. */
const LAID = { tiltDeg: 8, stepDeg: 2, slackMm: 5 } as const;
const ANY_WAY = { tiltDeg: 45, stepDeg: 1.5, slackMm: 12 } as const;
type Reach = typeof LAID | typeof ANY_WAY;
/** So many lies are looked at to the end. */
const BEST = 8;
/** Labels must stand out by this, L*, and by this much more than they would the other way up. */
const LEGIBLE = 0.7;
const UPRIGHT = 0.35;
/** So many places on letters are enough to tell which way is up. */
const MOST_LETTERS = 260;

/**
 * Finds a coupon on the card by its corner marks and labels, any way round: a coarse search over place and turn, made finer in steps,
 * then every corner mark on its own to a few hundredths of a millimetre. One that does not lie about square to the card is looked for
 * at every angle.
 */
export function findCoupon(
  picture: ReadablePicture,
  layout: CouponLayout & { readonly frame: CouponFrame },
): CouponPose {
  const laid = findWithin(picture, layout, LAID);
  if (laid.sure) return laid;
  const turned = findWithin(picture, layout, ANY_WAY);
  return turned.sure ? turned : laid;
}

function findWithin(
  picture: ReadablePicture,
  layout: CouponLayout & { readonly frame: CouponFrame },
  reach: Reach,
): CouponPose {
  const { window } = picture.pose.card;
  const area = {
    xMm: window.xMm - 8,
    yMm: window.yMm - 8,
    widthMm: window.widthMm + 16,
    heightMm: window.heightMm + 16,
  };
  const { blank } = layout.design;
  const middle = { x: blank.widthMm / 2, y: blank.heightMm / 2 };
  const corners = probesOf(
    layout.frameStrokes.filter((_, i) => i % MARK_LINES === 1),
    middle,
  );
  const some = corners.filter((_, i) => i % 2 === 0);
  const coarse = search(picture, blank, area, { corners: some, reach });
  const fine = levelPicture(picture, ON_CARD, { ...area, pxMm: 0.5 }, 2);
  const closer = (from: readonly Lie[], step: Parameters<typeof refine>[1]) =>
    from.map((one) => refine(one, step, fine, area, corners)).sort((a, b) => b.score - a.score);
  const near = closer(closer(coarse, { reachMm: 0.4, tiltDeg: 0.6 }).slice(0, BEST), { reachMm: 0.2, tiltDeg: 0.25 });
  // Corner marks look alike from all four sides; the labels tell which way is up.
  const strokes = layout.labels.flatMap((label) => labelStrokes(label));
  const letters = probesOf(strokes, middle);
  const labels = letters.filter((_, i) => i % Math.ceil(letters.length / MOST_LETTERS) === 0);
  const at = (lie: Lie, probes: readonly Probe[]) =>
    scoreAt(fine, offsetsOf(probes, lie.turn, fine), lie.x - area.xMm, lie.y - area.yMm);
  // Letters are burnt as the corner marks are: dark where those are dark.
  const lettersAt = (lie: Lie) => at(lie, labels) * Math.sign(at(lie, corners));
  const lies = near.map((lie) => ({ lie, letters: lettersAt(lie) }));
  const best = lies.reduce((a, b) => (b.lie.score + b.letters > a.lie.score + a.letters ? b : a));
  const upsideDown = { ...best.lie, turn: best.lie.turn + Math.PI };
  const rivals = lies.filter(({ lie }) => Math.cos(lie.turn - best.lie.turn) < 0).map(({ letters }) => letters);
  const rival = Math.max(lettersAt(upsideDown), ...rivals);
  const pose = sharpenFrame(picture, layout, best.lie);
  // Corner marks alone cannot tell a coupon from itself turned half round.
  return { ...pose, sure: pose.sure && best.letters > LEGIBLE && best.letters - rival > UPRIGHT };
}

/** A place and a turn: the coupon's middle on the card, mm, and radians counter-clockwise. */
interface Lie {
  readonly x: number;
  readonly y: number;
  readonly turn: number;
  readonly score: number;
}

function probesOf(strokes: readonly (readonly Point[])[], middle: Point2): Probe[] {
  const STEP = 0.5;
  return strokes.flatMap((stroke) =>
    stroke.slice(1).flatMap(([x1, y1], i) => {
      const [x0, y0] = stroke[i]!;
      const length = Math.hypot(x1 - x0, y1 - y0);
      if (length < 1e-6) return [];
      const count = Math.max(1, Math.round(length / STEP));
      const [nx, ny] = [-(y1 - y0) / length, (x1 - x0) / length];
      return Array.from({ length: count }, (_, k) => {
        const t = (k + 0.5) / count;
        return { x: x0 + (x1 - x0) * t - middle.x, y: y0 + (y1 - y0) * t - middle.y, nx, ny };
      });
    }),
  );
}

type Area = { readonly xMm: number; readonly yMm: number; readonly widthMm: number; readonly heightMm: number };

/** Of so many probes one is asked first; a place is worth the others when it comes to this share of the best one yet. */
const FEW = 4;
const HOPEFUL = 0.5;

/** Best lies at a millimetre, one for each turn and tilt. */
function search(
  picture: ReadablePicture,
  blank: CouponLayout['design']['blank'],
  area: Area,
  { corners, reach }: { readonly corners: readonly Probe[]; readonly reach: Reach },
): Lie[] {
  const { tiltDeg, stepDeg, slackMm: slack } = reach;
  const map = levelPicture(picture, ON_CARD, { ...area, pxMm: 1 }, 3);
  const few = corners.filter((_, i) => i % FEW === 0);
  const found: Lie[] = [];
  for (let quarter = 0; quarter < 4; quarter += 1) {
    const [w, h] = quarter % 2 ? [blank.heightMm, blank.widthMm] : [blank.widthMm, blank.heightMm];
    const [x0, x1] = ends(area.xMm + 8 + w / 2 - slack, area.xMm + area.widthMm - 8 - w / 2 + slack);
    const [y0, y1] = ends(area.yMm + 8 + h / 2 - slack, area.yMm + area.heightMm - 8 - h / 2 + slack);
    for (let tilt = -tiltDeg; tilt <= tiltDeg; tilt += stepDeg) {
      const turn = (quarter * 90 + tilt) * (Math.PI / 180);
      const steps = wholeSteps(offsetsOf(corners, turn, map), map);
      const fewSteps = wholeSteps(offsetsOf(few, turn, map), map);
      let best: Lie | null = null;
      for (let y = y0; y <= y1; y += 1) {
        for (let x = x0; x <= x1; x += 1) {
          const at = Math.round(y - area.yMm) * map.columns + Math.round(x - area.xMm);
          // Most places show at a few probes that they are none.
          if (best && Math.abs(scoreOfSteps(map.l, fewSteps, at)) < HOPEFUL * best.score) continue;
          const score = Math.abs(scoreOfSteps(map.l, steps, at));
          if (!best || score > best.score) best = { x, y, turn, score };
        }
      }
      if (best) found.push(best);
    }
  }
  return found.sort((a, b) => b.score - a.score).slice(0, 16);
}

function ends(low: number, high: number): [number, number] {
  return low <= high ? [low, high] : [(low + high) / 2, (low + high) / 2];
}

/** Probes turned, in mm off the middle: on the stroke, and on both sides of it. */
function offsetsOf(probes: readonly Probe[], turn: number, map: LevelPicture): Float64Array {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const off = Math.max(OFF_MM, map.pxMm * 1.2);
  const out = new Float64Array(probes.length * 6);
  probes.forEach(({ x, y, nx, ny }, i) => {
    const [px, py] = [c * x - s * y, s * x + c * y];
    const [ox, oy] = [(c * nx - s * ny) * off, (s * nx + c * ny) * off];
    const at = 6 * i;
    out[at] = px;
    out[at + 1] = py;
    out[at + 2] = px + ox;
    out[at + 3] = py + oy;
    out[at + 4] = px - ox;
    out[at + 5] = py - oy;
  });
  return out;
}

/** Mean of (beside − on) in L*, each cut off; positive where the strokes are dark. Outside the map counts as nothing. */
function scoreAt(map: LevelPicture, offsets: Float64Array, x: number, y: number): number {
  let sum = 0;
  for (let i = 0; i < offsets.length; i += 6) sum += stepOf(map, offsets, i, x, y);
  return (6 * sum) / offsets.length;
}

/** Probes as steps between pixels of a map, for places that are whole pixels. */
function wholeSteps(offsets: Float64Array, { columns, pxMm }: LevelPicture): Int32Array {
  return Int32Array.from(
    { length: offsets.length / 2 },
    (_, i) => Math.floor(offsets[2 * i + 1]! / pxMm) * columns + Math.floor(offsets[2 * i]! / pxMm),
  );
}

/** As scoreAt, for the coarse search that asks a hundred thousand times: outside the map counts as nothing. */
function scoreOfSteps(l: Float32Array, steps: Int32Array, at: number): number {
  let sum = 0;
  for (let i = 0; i < steps.length; i += 3) {
    const on = l[at + steps[i]!]!;
    const one = l[at + steps[i + 1]!]! - on;
    const other = l[at + steps[i + 2]!]! - on;
    if (one > 0 && other > 0) sum += one < other ? Math.min(one, MOST_STEP) : Math.min(other, MOST_STEP);
    else if (one < 0 && other < 0) sum += one > other ? Math.max(one, -MOST_STEP) : Math.max(other, -MOST_STEP);
  }
  return (3 * sum) / steps.length;
}

function stepsAt(map: LevelPicture, offsets: Float64Array, x: number, y: number): number[] {
  return Array.from({ length: offsets.length / 6 }, (_, i) => stepOf(map, offsets, 6 * i, x, y));
}

/** The side that differs less counts: a stroke differs from both of its sides, an edge from one. */
function stepOf(map: LevelPicture, offsets: Float64Array, i: number, x: number, y: number): number {
  const on = lightnessAt(map, x + offsets[i]!, y + offsets[i + 1]!);
  const one = lightnessAt(map, x + offsets[i + 2]!, y + offsets[i + 3]!) - on;
  const other = lightnessAt(map, x + offsets[i + 4]!, y + offsets[i + 5]!) - on;
  if (one > 0 && other > 0) return Math.min(one, other, MOST_STEP);
  if (one < 0 && other < 0) return Math.max(one, other, -MOST_STEP);
  return 0;
}

function lightnessAt({ l, columns, rows, pxMm }: LevelPicture, x: number, y: number): number {
  const [column, row] = [Math.floor(x / pxMm), Math.floor(y / pxMm)];
  return column < 0 || row < 0 || column >= columns || row >= rows ? Number.NaN : l[row * columns + column]!;
}

/** Seven steps each way and of turn about a lie, mm and degrees. */
function refine(
  from: Lie,
  { reachMm, tiltDeg }: { readonly reachMm: number; readonly tiltDeg: number },
  map: LevelPicture,
  area: Area,
  probes: readonly Probe[],
): Lie {
  let best: Lie = { ...from, score: -1 };
  for (let a = -3; a <= 3; a += 1) {
    const turn = from.turn + a * tiltDeg * (Math.PI / 180);
    const turned = offsetsOf(probes, turn, map);
    for (let dy = -3; dy <= 3; dy += 1) {
      for (let dx = -3; dx <= 3; dx += 1) {
        const [x, y] = [from.x + dx * reachMm, from.y + dy * reachMm];
        const score = Math.abs(scoreAt(map, turned, x - area.xMm, y - area.yMm));
        if (score > best.score) best = { x, y, turn, score };
      }
    }
  }
  return best;
}

/** Reach and step of the last search, about one corner mark, mm. */
const CORNER = { reach: 1.4, step: 0.1, around: 6 } as const;

/** Every corner mark on its own; what was seen of them makes the map from coupon to card, what was not is carried along. */
function sharpenFrame(
  picture: ReadablePicture,
  layout: CouponLayout & { readonly frame: CouponFrame },
  lie: Lie,
): CouponPose {
  const { frame, design } = layout;
  const [c, s] = [Math.cos(lie.turn), Math.sin(lie.turn)];
  const { widthMm: w, heightMm: h } = design.blank;
  const rough: Homography = [
    c,
    -s,
    lie.x - (c * w) / 2 + (s * h) / 2,
    s,
    c,
    lie.y - (s * w) / 2 - (c * h) / 2,
    0,
    0,
    1,
  ];
  const own = cornersOf(frame);
  const found = own.map((corner, i) => {
    const strokes = layout.frameStrokes.slice(i * MARK_LINES, (i + 1) * MARK_LINES);
    return seeCorner(picture, rough, corner, probesOf([strokes[1]!, strokes[2]!], corner));
  });
  const seen = found.filter(({ seen: one }) => one);
  const shift = {
    x: seen.reduce((sum, { dx }) => sum + dx, 0) / (seen.length || 1),
    y: seen.reduce((sum, { dy }) => sum + dy, 0) / (seen.length || 1),
  };
  const places = found.map(({ seen: one, dx, dy }, i) => ({
    x: own[i]!.x + (one ? dx : shift.x),
    y: own[i]!.y + (one ? dy : shift.y),
  }));
  const corners = places.map((place) => project(rough, place));
  return { toCard: fitHomography(own, corners), corners, sure: seen.length >= 3, seen: seen.length };
}

/** How a coupon lies by the corners somebody put on its marks: on the card, mm, in the order of `corners`. */
export function poseFromCorners(frame: CouponFrame, corners: readonly Point2[]): CouponPose {
  return { toCard: fitHomography(cornersOf(frame), corners), corners, sure: true, seen: 4 };
}

function cornersOf({ xMm, yMm, widthMm, heightMm }: CouponFrame): Point2[] {
  return [
    { x: xMm, y: yMm },
    { x: xMm + widthMm, y: yMm },
    { x: xMm + widthMm, y: yMm + heightMm },
    { x: xMm, y: yMm + heightMm },
  ];
}

/** Shift of one corner mark from where it was thought, mm on the coupon, and whether it was seen at all. */
function seeCorner(
  picture: ReadablePicture,
  rough: Homography,
  corner: Point2,
  probes: readonly Probe[],
): { dx: number; dy: number; seen: boolean } {
  const { reach, step, around } = CORNER;
  const map = levelPicture(picture, rough, {
    xMm: corner.x - around,
    yMm: corner.y - around,
    widthMm: 2 * around,
    heightMm: 2 * around,
    pxMm: 0.1,
  });
  const turned = offsetsOf(probes, 0, map);
  const across = Math.round((2 * reach) / step) + 1;
  const scores = Float64Array.from({ length: across * across }, (_, i) =>
    scoreAt(map, turned, around + ((i % across) * step - reach), around + (Math.floor(i / across) * step - reach)),
  );
  const at = scores.reduce((best, score, i) => (Math.abs(score) > Math.abs(scores[best]!) ? i : best), 0);
  const [column, row] = [at % across, Math.floor(at / across)];
  const dx = (column + summit(scores, at, 1, column, across)) * step - reach;
  const dy = (row + summit(scores, at, across, row, across)) * step - reach;
  const steps = stepsAt(map, turned, around + dx, around + dy);
  const sign = Math.sign(scores[at]!);
  const agree = steps.filter((value) => value * sign > 0.5).length / steps.length;
  return { dx, dy, seen: Math.abs(scores[at]!) > SEEN.step && agree > SEEN.share };
}

/** Offset of the top of a parabola through a score and its neighbours, in steps. */
function summit(scores: Float64Array, at: number, stride: number, place: number, across: number): number {
  if (place === 0 || place === across - 1) return 0;
  const [a, b, c] = [scores[at - stride]!, scores[at]!, scores[at + stride]!].map(Math.abs) as [number, number, number];
  const curve = a - 2 * b + c;
  return curve < 0 ? Math.max(-0.5, Math.min(0.5, (a - c) / (2 * curve))) : 0;
}
