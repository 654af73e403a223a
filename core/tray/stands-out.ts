import { lightSurface } from '../imaging/flatten.js';
import type { ReferenceCard } from '../target/card.js';
import { median } from '../statistics/index.js';
import type { PlanePicture } from './plane-picture.js';

/** About the card so much is not looked at, mm: it throws a shadow, and may have been cut with a rim. */
const CARD_RIM_MM = 4;
/** The tray shows along the picture's rim: this share of its steps. */
const RIM = 0.05;
/** Rounds in which the tray's light is fitted to what looks like the tray, and the spread of ln light that still does. */
const ROUNDS = 2;
const LEAST_LIMIT = 0.12;
const SPREADS = 6;
/** A thing's own steps stand out by more than half of what most of them do: its shadow less. */
const OF_OWN = 0.5;

/** Things that stand out from a plain tray in uneven light, of so many steps at least: the steps of each, its holes filled; the card is none. */
export function standsOut(plane: PlanePicture, card: ReferenceCard, leastSteps: number): number[][] {
  const { columns, rows, ln } = plane;
  const open = new Uint8Array(columns * rows);
  for (let i = 0; i < open.length; i += 1) open[i] = Number.isNaN(ln[3 * i]!) || onCard(plane, card, i) ? 0 : 1;
  const apart = offTray(plane, open);
  const far = Uint8Array.from(open, (is, i) => (is && apart.values[i]! > apart.limit ? 1 : 0));
  return groupsOf(plane, far, leastSteps).flatMap((group) => {
    const own = Math.max(apart.limit, OF_OWN * median(Float64Array.from(group, (i) => apart.values[i]!)));
    const sharp = new Uint8Array(columns * rows);
    for (const i of group) if (apart.values[i]! > own) sharp[i] = 1;
    const [largest] = groupsOf(plane, sharp, leastSteps / 2, group).sort((a, b) => b.length - a.length);
    return largest ? [filled(plane, largest)] : [];
  });
}

function onCard({ xMm, yMm, stepMm, columns }: PlanePicture, card: ReferenceCard, i: number): boolean {
  const x = xMm + ((i % columns) + 0.5) * stepMm;
  const y = yMm + (Math.floor(i / columns) + 0.5) * stepMm;
  return x > -CARD_RIM_MM && y > -CARD_RIM_MM && x < card.widthMm + CARD_RIM_MM && y < card.heightMm + CARD_RIM_MM;
}

/** How far each step is off the tray's own light, ln, by the channel that tells most; and what still looks like the tray. */
function offTray(plane: PlanePicture, open: Uint8Array): { readonly values: Float32Array; readonly limit: number } {
  const seen = Array.from(open.keys()).filter((i) => open[i]);
  const rim = seen.filter((i) => nearRim(plane, open, i));
  const values = new Float32Array(plane.columns * plane.rows);
  let [tray, limit] = [rim, LEAST_LIMIT];
  for (let round = 0; round < ROUNDS; round += 1) {
    const lights = [0, 1, 2].map((channel) => trayLight(plane, tray, channel));
    for (const i of seen)
      values[i] = Math.max(Math.abs(lights[0]!(i)), Math.abs(lights[1]!(i)), Math.abs(lights[2]!(i)));
    limit = Math.max(LEAST_LIMIT, SPREADS * median(tray.map((i) => values[i]!)));
    const like = seen.filter((i) => values[i]! < limit);
    if (like.length >= rim.length) tray = like;
  }
  return { values, limit };
}

/** Whether a step lies at the rim of what the picture shows. */
function nearRim({ columns, rows }: PlanePicture, open: Uint8Array, i: number): boolean {
  const reach = Math.max(2, Math.round(RIM * Math.min(columns, rows)));
  const [c, r] = [i % columns, Math.floor(i / columns)];
  if (c < reach || r < reach || c >= columns - reach || r >= rows - reach) return true;
  return !open[i - reach] || !open[i + reach] || !open[i - reach * columns] || !open[i + reach * columns];
}

/** Most steps that light is fitted to. */
const MOST_FITTED = 400;

/** The tray's light in one channel by what is taken for the tray: how far a step is off it, ln. */
function trayLight({ columns, rows, ln }: PlanePicture, tray: readonly number[], channel: number) {
  const few = tray.filter((_, k) => k % Math.ceil(tray.length / MOST_FITTED) === 0);
  const placeOf = (i: number) => ({ x: (i % columns) / columns, y: Math.floor(i / columns) / rows });
  const surface = lightSurface(
    few.map(placeOf),
    Float64Array.from(few, (i) => Math.exp(ln[3 * i + channel]!)),
  );
  return (i: number) => ln[3 * i + channel]! - Math.log(surface.level * surface.at(placeOf(i)));
}

/** Connected steps that are set, in groups of so many at least; looked for from some of them, else from all. */
function groupsOf(
  { columns, rows }: PlanePicture,
  set: Uint8Array,
  least: number,
  from?: readonly number[],
): number[][] {
  const seen = new Uint8Array(columns * rows);
  const groups: number[][] = [];
  for (const start of from ?? set.keys()) {
    if (seen[start] || !set[start]) continue;
    const group = [start];
    seen[start] = 1;
    for (let k = 0; k < group.length; k += 1)
      for (const next of beside(group[k]!, columns, rows)) {
        if (seen[next] || !set[next]) continue;
        seen[next] = 1;
        group.push(next);
      }
    if (group.length >= least) groups.push(group);
  }
  return groups;
}

function beside(i: number, columns: number, rows: number): number[] {
  const [c, r] = [i % columns, Math.floor(i / columns)];
  return [
    ...(c > 0 ? [i - 1] : []),
    ...(c < columns - 1 ? [i + 1] : []),
    ...(r > 0 ? [i - columns] : []),
    ...(r < rows - 1 ? [i + columns] : []),
  ];
}

/** A thing with what lies within it: a mark as dark as the tray is a hole in no piece. */
function filled({ columns }: PlanePicture, group: readonly number[]): number[] {
  const cs = group.map((i) => i % columns);
  const rs = group.map((i) => Math.floor(i / columns));
  const [c0, c1] = [cs.reduce((a, b) => Math.min(a, b)) - 1, cs.reduce((a, b) => Math.max(a, b)) + 1];
  const [r0, r1] = [rs.reduce((a, b) => Math.min(a, b)) - 1, rs.reduce((a, b) => Math.max(a, b)) + 1];
  const [w, h] = [c1 - c0 + 1, r1 - r0 + 1];
  const solid = new Uint8Array(w * h);
  for (const i of group) solid[(Math.floor(i / columns) - r0) * w + (i % columns) - c0] = 1;
  const outside = new Uint8Array(w * h);
  const queue = [0];
  outside[0] = 1;
  for (let k = 0; k < queue.length; k += 1)
    for (const next of beside(queue[k]!, w, h)) {
      if (outside[next] || solid[next]) continue;
      outside[next] = 1;
      queue.push(next);
    }
  return Array.from(outside.keys())
    .filter((i) => !outside[i])
    .map((i) => (Math.floor(i / w) + r0) * columns + (i % w) + c0);
}
