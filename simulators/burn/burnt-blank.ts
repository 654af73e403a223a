import { arealDose, deliveredPower, heatIndex, seededRandom, standardNormal, type Random } from '@unto/core';
import type { BurnSetup } from '@unto/contract';
import { truthOf } from '../ground-truth/pairings.js';
import type { FilmTruth } from '../ground-truth/coat-film.js';
import type { CoatTruth } from '../ground-truth/coat-truth.js';
import { inspectionOf, type Looks } from '../ground-truth/looks.js';
import { speedAlong, type TimedMove } from './run-times.js';

/** Pixel of a blank, mm. */
export const BLANK_PX_MM = 0.1;
/** Steps of deposit along a line, mm. */
const STEP_MM = 0.05;

/** How much of each thing a place has become, 0 to 1; and what it throws back. Linear light, three channels. */
export interface BlankPicture {
  readonly columns: number;
  readonly rows: number;
  readonly rgb: Float32Array;
}

/** What the beam left on a blank: energy over area, and how fast and strong it came, pixel by pixel from the lower left corner. */
export class BurntBlank {
  readonly columns: number;
  readonly rows: number;
  private readonly energy: Float32Array;
  private readonly speed: Float32Array;
  private readonly power: Float32Array;
  private readonly focus: Float32Array;
  /** Share of a loose powder that lay there still when it was fired. */
  private readonly left: Float32Array;

  /** @param film the coat before it is fired, as a multiple of a good one */
  constructor(
    private readonly setup: BurnSetup,
    private readonly film: FilmTruth = EVEN,
  ) {
    this.columns = Math.ceil(setup.blank.widthMm / BLANK_PX_MM);
    this.rows = Math.ceil(setup.blank.heightMm / BLANK_PX_MM);
    const size = this.columns * this.rows;
    this.energy = new Float32Array(size);
    this.speed = new Float32Array(size);
    this.power = new Float32Array(size);
    this.focus = new Float32Array(size);
    this.left = new Float32Array(size);
  }

  /** Lays the energy of some moves down along their path, spread over the width of the spot; with the air assist on, powder goes. */
  burn(moves: readonly TimedMove[], { air } = { air: false }): void {
    const { fullScaleS, accelerationMmPerS2, radiusMm, focusMm } = this.setup;
    const kernel = spotKernel(radiusMm);
    const watts = new Map<number, number>();
    for (const move of moves) {
      if (move.power <= 0) continue;
      const length = Math.hypot(move.x1 - move.x0, move.y1 - move.y0);
      if (length === 0) continue;
      let full = watts.get(move.power);
      if (full === undefined) watts.set(move.power, (full = this.wattsAt((100 * move.power) / fullScaleS)));
      if (full <= 0) continue;
      const steps = Math.max(1, Math.round(length / STEP_MM));
      for (let k = 0; k < steps; k += 1) {
        const t = (k + 0.5) / steps;
        const v = speedAlong(move, t * length, length, accelerationMmPerS2);
        const p = move.scaled ? full * Math.min(1, v / move.speedMmPerS) : full;
        this.deposit(move.x0 + (move.x1 - move.x0) * t, move.y0 + (move.y1 - move.y0) * t, {
          energyJ: (p * length) / steps / v,
          v,
          p,
          focus: move.focusMm ?? focusMm,
          left: air ? Math.exp(-move.endsS / POWDER_STAYS_S) : 1,
          kernel,
        });
      }
    }
  }

  private wattsAt(percent: number): number {
    const { ratedW, firingThresholdPercent, calibration } = this.setup;
    return deliveredPower(percent, { ratedW, firingThresholdPercent, calibration: calibration ?? undefined });
  }

  private deposit(x: number, y: number, { energyJ, v, p, focus, left, kernel }: Deposit): void {
    const cx = x / BLANK_PX_MM - 0.5;
    const cy = y / BLANK_PX_MM - 0.5;
    const c0 = Math.round(cx);
    const r0 = Math.round(cy);
    const table = kernel.at(cx - c0, cy - r0);
    const { reach } = kernel;
    let k = 0;
    for (let dr = -reach; dr <= reach; dr += 1) {
      for (let dc = -reach; dc <= reach; dc += 1) {
        const c = c0 + dc;
        const r = r0 + dr;
        const share = energyJ * table[k]!;
        k += 1;
        if (c < 0 || r < 0 || c >= this.columns || r >= this.rows) continue;
        const i = r * this.columns + c;
        this.energy[i]! += share;
        this.speed[i]! += share * v;
        this.power[i]! += share * p;
        this.focus[i]! += share * focus;
        this.left[i]! += share * left;
      }
    }
  }

  /** The blank as it looks after a stage: what bonded, what only clings until the scrub, what was over-fired with its halo. */
  look(stage: 'rinsed' | 'scrubbed'): BlankPicture {
    const { columns, rows } = this;
    const looks = inspectionOf(this.setup);
    const random = seededRandom(seedOf(this.setup.key));
    const spray = sprayField(random);
    const blocks = this.setup.blocks.map((block) => ({ ...block, state: this.blockState(block.compound) }));
    const rgb = new Float32Array(3 * columns * rows);
    const over = new Float32Array(columns * rows);
    const marked = new Float32Array(columns * rows);
    const lift = 0.5 * random();
    for (let i = 0; i < columns * rows; i += 1) {
      if (this.energy[i]! <= 0) continue;
      const x = ((i % columns) + 0.5) * BLANK_PX_MM;
      const y = (Math.floor(i / columns) + 0.5) * BLANK_PX_MM;
      const block = blocks.find(({ fromMm, toMm }) => x >= fromMm && x < toMm);
      if (!block?.state) continue;
      const fine = standardNormal(random);
      const warp = lift * (x / this.setup.blank.widthMm) ** 2 * (y / this.setup.blank.heightMm) ** 2;
      const film = this.filmAt(i, x, y, block.powder);
      const excess = this.excess(i, block.state, { spray: spray(x, y), fine, coats: block.coats, warpMm: warp, film });
      const { truth } = block.state;
      over[i] = logistic((excess - truth.widthLn) / 0.09);
      marked[i] = hiding(film) * logistic((stage === 'scrubbed' ? excess : excess + 0.9) / 0.07);
    }
    const halo = spread(over, columns, rows, Math.round(0.45 / BLANK_PX_MM));
    paint({ rgb, columns, rows, marked, over, halo, looks, random });
    return { columns, rows, rgb };
  }

  private blockState(compound: string): BlockState | null {
    const { conductivity, diffusivity, radiusMm, family, layer, beam } = this.setup;
    const ground = { conductivity, diffusivity, radiusMm };
    const truth = truthOf({ compound, family, layer, beam }, ground);
    if (!truth) return null;
    const { powerW, speedMmPerS } = truth.bondsAt;
    const rise = (v: number) => heatIndex({ powerW: 1, speedMmPerS: v, ...ground });
    const known = new Map<number, number>();
    return {
      truth,
      riseAt: (v) => {
        const key = Math.max(1, Math.round(v));
        let value = known.get(key);
        if (value === undefined) known.set(key, (value = Math.log(rise(key))));
        return value;
      },
      bonds:
        truth.heatShare * Math.log(rise(speedMmPerS) * powerW) +
        (1 - truth.heatShare) * Math.log(arealDose({ ...truth.bondsAt, passes: 1 })),
    };
  }

  /** How far beyond bonding a place came, ln; noise of the spray and of the grain, which grows with speed, included. */
  private excess(
    i: number,
    { truth, riseAt, bonds }: BlockState,
    { spray, fine, coats, warpMm, film }: { spray: number; fine: number; coats: number; warpMm: number; film: number },
  ): number {
    const energy = this.energy[i]!;
    const v = this.speed[i]! / energy;
    const p = this.power[i]! / energy;
    const dose = energy / BLANK_PX_MM ** 2;
    const effect = truth.heatShare * (riseAt(v) + Math.log(p)) + (1 - truth.heatShare) * Math.log(dose);
    const away = this.focus[i]! / energy - warpMm;
    const blurred = 0.5 * Math.log(1 + (away / this.setup.rayleighMm) ** 2);
    const grain = (0.05 + 0.1 * Math.min(1, v / 400)) * fine;
    // Through a thick film the heat does not reach the ground; a thin one takes little and soon too much.
    const thick = THICKNESS * Math.log(Math.max(film, 0.02));
    return effect - bonds - blurred + truth.sprayNoise * spray + grain - 0.12 * (coats - 1) - thick;
  }

  private filmAt(i: number, x: number, y: number, powder: boolean): number {
    const { widthMm, heightMm } = this.setup.blank;
    const film = this.film(x / widthMm, y / heightMm);
    return powder ? (film * this.left[i]!) / this.energy[i]! : film;
  }
}

/** A coat as it should be, all over. */
export const EVEN: FilmTruth = () => 1;
/** In a stream of air a loose powder is down to 1/e after this long, s. */
const POWDER_STAYS_S = 240;
/** ln of effect lost per ln of film. */
const THICKNESS = 0.45;

/** Share of a full mark's darkness that a film can give; full from a good one on. */
function hiding(film: number): number {
  return Math.min(1, (1 - Math.exp(-1.9 * film)) / (1 - Math.exp(-1.9)));
}

interface Deposit {
  readonly energyJ: number;
  readonly v: number;
  readonly p: number;
  readonly focus: number;
  readonly left: number;
  readonly kernel: Kernel;
}

interface BlockState {
  readonly truth: CoatTruth;
  /** ln of heat index per watt at a speed. */
  readonly riseAt: (v: number) => number;
  readonly bonds: number;
}

interface Kernel {
  readonly reach: number;
  /** Shares of the energy on the pixels about one, for a spot that far off its middle (px). */
  at(dx: number, dy: number): Float32Array;
}

/** A Gaussian spot on pixels, at eighths of a pixel. */
function spotKernel(radiusMm: number): Kernel {
  const w = Math.max(radiusMm, 0.045) / BLANK_PX_MM;
  const reach = Math.max(1, Math.ceil(1.3 * w));
  const side = 2 * reach + 1;
  const known = new Map<number, Float32Array>();
  return {
    reach,
    at: (dx, dy) => {
      const [qx, qy] = [Math.round(dx * 8), Math.round(dy * 8)];
      const key = (qx + 8) * 32 + qy + 8;
      let table = known.get(key);
      if (!table) {
        table = Float32Array.from({ length: side * side }, (_, i) => {
          const [px, py] = [(i % side) - reach - qx / 8, Math.floor(i / side) - reach - qy / 8];
          return Math.exp((-2 * (px * px + py * py)) / (w * w));
        });
        const sum = table.reduce((a, b) => a + b, 0);
        table.forEach((value, i) => (table![i] = value / sum));
        known.set(key, table);
      }
      return table;
    },
  };
}

/** Unevenness of a sprayed coat: slow waves with a spread of 1. */
function sprayField(random: Random): (x: number, y: number) => number {
  const waves = Array.from({ length: 14 }, () => {
    const k = (2 * Math.PI) / (9 + 22 * random());
    const angle = 2 * Math.PI * random();
    return { kx: k * Math.cos(angle), ky: k * Math.sin(angle), phase: 2 * Math.PI * random() };
  });
  const level = Math.sqrt(2 / waves.length);
  return (x, y) => level * waves.reduce((sum, { kx, ky, phase }) => sum + Math.sin(kx * x + ky * y + phase), 0);
}

/** Mean of a map over squares of a radius, twice: how far heat discolours beyond what was over-fired. */
function spread(map: Float32Array, columns: number, rows: number, radius: number): Float32Array {
  const pass = (from: Float32Array, stride: number, count: number, lines: number, line: number) => {
    const to = new Float32Array(from.length);
    for (let l = 0; l < lines; l += 1) {
      let sum = 0;
      const at = (k: number) => from[l * line + Math.min(count - 1, Math.max(0, k)) * stride]!;
      for (let k = -radius; k <= radius; k += 1) sum += at(k);
      for (let k = 0; k < count; k += 1) {
        to[l * line + k * stride] = sum / (2 * radius + 1);
        sum += at(k + radius + 1) - at(k - radius);
      }
    }
    return to;
  };
  return pass(pass(map, 1, columns, rows, columns), columns, rows, columns, 1);
}

function paint(task: {
  rgb: Float32Array;
  columns: number;
  rows: number;
  marked: Float32Array;
  over: Float32Array;
  halo: Float32Array;
  looks: Looks;
  random: Random;
}): void {
  const { rgb, columns, rows, marked, over, halo, looks, random } = task;
  const { ground, mark, scorch } = looks;
  let brushed = 0;
  for (let i = 0; i < columns * rows; i += 1) {
    // Brushing runs across: neighbours in a row are alike.
    brushed = 0.7 * brushed + 0.72 * standardNormal(random);
    const grain = 1 + looks.texture * brushed;
    const m = marked[i]!;
    const o = over[i]!;
    const h = Math.min(1, 2.2 * halo[i]!) * (1 - m);
    for (let k = 0; k < 3; k += 1) {
      const bare = ground[k]! * grain * (1 - 0.72 * h) + scorch[k]! * 0.72 * h;
      const full = mark[k]! * (1 - 0.8 * o) + scorch[k]! * 0.8 * o;
      rgb[3 * i + k] = bare * (1 - m) + full * m;
    }
  }
}

function logistic(x: number): number {
  return 1 / (1 + Math.exp(-x));
}

function seedOf(key: string): number {
  return [...key].reduce((hash, letter) => Math.imul(hash ^ letter.charCodeAt(0), 16_777_619) >>> 0, 2_166_136_261);
}
