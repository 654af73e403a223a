import { closeSync, openSync, readdirSync, readFileSync, writeFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { Image } from 'image-js';
import {
  gcodeParts,
  insideOf,
  layoutCoupon,
  openCardPicture,
  readCoupon,
  type CouponDesign,
  type CouponLayout,
  type Pixels,
} from '@unto/core';
import { decoded } from '@unto/simulators/camera';
import {
  coveredCells,
  STUDY_DESIGN,
  STUDY_LIMITS,
  STUDY_MOTION,
  studyBlank,
  studyMoves,
  studyPhoto,
  studyReading,
  trueLightness,
} from '@unto/simulators/testing';
import { openBrowser } from '../../e2e/browser.js';
import type { Line } from './line.js';
import { CLIENT } from '../lib/paths.mjs';
import { launchServer } from '../lib/server.mjs';
import { startCluster } from '../lib/cluster.mjs';

/** A hundred cells, as the speed of reading is asked of. */
const HUNDRED: CouponDesign = {
  ...STUDY_DESIGN,
  code: 'K-100',
  axes: {
    x: { parameter: 'power', spacing: 'linear', from: 40, to: 100, count: 10 },
    y: { parameter: 'speed', spacing: 'log', from: 60, to: 420, count: 10 },
  },
  blank: { widthMm: 76, heightMm: 64 },
};
const TWELVE_MEGAPIXELS = { width: 4032, height: 3024 };

async function hundredCells(): Promise<{ layout: CouponLayout; jpeg: Buffer }> {
  const { layout, moves } = studyMoves(HUNDRED);
  const blank = studyBlank(5, 'rinsed', moves, { blank: HUNDRED.blank });
  return { layout, jpeg: await studyPhoto({ seed: 4, blank, size: TWELVE_MEGAPIXELS }) };
}

/** The 50-seed study of what pictures tell, plain ones and spoilt ones. */
export async function pictureStudy(seeds: number): Promise<Line[]> {
  const { layout, moves } = studyMoves(STUDY_DESIGN);
  let [cells, within, unread, spoiltCells, refused] = [0, 0, 0, 0, 0];
  for (let seed = 1; seed <= seeds; seed += 1) {
    const blank = studyBlank(seed, seed % 2 ? 'scrubbed' : 'rinsed', moves);
    const truth = trueLightness(blank, layout);
    const plain = await studyReading(await studyPhoto({ seed, blank }), layout);
    for (const { cell, lightness } of plain.cells) {
      cells += 1;
      if (lightness === null) unread += 1;
      else if (Math.abs(lightness - truth[cell]!) <= 2) within += 1;
    }
    const fault = seed % 4 < 2 ? 'glare on some cells' : 'some cells blurred';
    const at = layout.cells[(seed * 11) % layout.cells.length]!;
    const spoilt = [{ x: at.xMm + 2.5, y: at.yMm + 2, radiusMm: 5.5 }];
    const marked = studyBlank(seed, 'rinsed', moves);
    const found = await studyReading(await studyPhoto({ seed: seed + 500, blank: marked, fault, spoilt }), layout);
    for (const index of coveredCells(layout, spoilt, fault.startsWith('glare') ? 0.03 : 0.2)) {
      spoiltCells += 1;
      if (found.cells[index]!.unreadable) refused += 1;
    }
  }
  const share = within / (cells - unread);
  return [
    {
      what: `cells of ${seeds} pictures, L* against the truth`,
      figure: `${(100 * share).toFixed(1)} % of ${cells - unread} within 2; ${unread} of ${cells} not read`,
      against: 'the hidden truth',
      ratio: `${(100 * share).toFixed(1)} %`,
      goal: '≥ 95 %',
      met: share >= 0.95,
    },
    {
      what: `cells glared or blurred on purpose, ${seeds} pictures`,
      figure: `${refused} of ${spoiltCells} refused`,
      against: 'the hidden truth',
      ratio: `${((100 * refused) / spoiltCells).toFixed(1)} %`,
      goal: 'all',
      met: refused === spoiltCells,
    },
  ];
}

function medianOf(times: readonly number[]): number {
  return [...times].sort((a, b) => a - b)[times.length >> 1]!;
}

function timed(runs: number, work: () => unknown): number {
  work();
  return medianOf(
    Array.from({ length: runs }, () => {
      const begun = performance.now();
      work();
      return performance.now() - begun;
    }),
  );
}

/** Straightening, levelling and measuring a hundred cells against straightening and taking means with image-js. */
export async function againstImageJs(): Promise<Line> {
  const { layout, jpeg } = await hundredCells();
  const pixels = await decoded(jpeg);
  const open = openCardPicture(pixels);
  const reading = readCoupon(open, layout);
  const { columns, rows, pxMm } = reading.picture;
  const ours = timed(5, () => readCoupon(open, layout));
  const theirs = timed(3, () => imageJsSteps(pixels, layout, toPixels(open, layout), { columns, rows, pxMm }));
  const ratio = theirs / ours;
  return {
    what: '100 cells of 12 megapixels, after decoding',
    figure: `${ours.toFixed(0)} ms, coupon found, levelled, all measures`,
    against: `image-js: warp and means alone ${theirs.toFixed(0)} ms`,
    ratio: `${ratio.toFixed(1)} × faster`,
    goal: '≥ 5 ×',
    met: ratio >= 5,
  };
}

/** Straight map from the picture to the straightened coupon for image-js, lens distortion left out. */
function toPixels(open: ReturnType<typeof openCardPicture>, layout: CouponLayout): number[][] {
  const h = open.pose.homography;
  const { window } = open.pose.card;
  const s = layout.design.blank.widthMm / window.widthMm;
  return [
    [h[0]! * s, h[1]! * s, h[2]!],
    [h[3]! * s, h[4]! * s, h[5]!],
    [h[6]! * s, h[7]! * s, h[8]!],
  ];
}

function imageJsSteps(
  { width, height, data }: Pixels,
  layout: CouponLayout,
  matrix: number[][],
  { columns, rows, pxMm }: { columns: number; rows: number; pxMm: number },
): number {
  const image = new Image(width, height, {
    data: new Uint8Array(data.buffer, data.byteOffset, data.length),
    colorModel: 'RGBA',
  });
  const options = { width: columns, height: rows, inverse: true, interpolationType: 'bilinear' as const };
  const straight = image
    .transform(
      matrix.map((row) => row.map((v, i) => (i < 2 ? v * pxMm : v))),
      options,
    )
    .grey();
  let sum = 0;
  for (const cell of layout.cells) {
    const { x0, y0, x1, y1 } = insideOf(layout, cell);
    const crop = straight.crop({
      origin: { column: Math.round(x0 / pxMm), row: Math.round(y0 / pxMm) },
      width: Math.round((x1 - x0) / pxMm),
      height: Math.round((y1 - y0) / pxMm),
    });
    sum += crop.mean()[0]! + crop.median()[0]!;
  }
  return sum;
}

/** A coupon of 400 cells at 0.025 mm written out part by part, against writing the same bytes. */
export function exportAgainstBytes(folder: string): Line {
  const layout = layoutCoupon(
    {
      ...STUDY_DESIGN,
      code: 'K-400',
      axes: {
        x: { parameter: 'power', spacing: 'linear', from: 10, to: 100, count: 20 },
        y: { parameter: 'speed', spacing: 'log', from: 50, to: 500, count: 20 },
      },
      fixed: { ...STUDY_DESIGN.fixed, intervalMm: 0.025 },
      blank: { widthMm: 150, heightMm: 140 },
    },
    STUDY_LIMITS,
  );
  const options = { motion: STUDY_MOTION, fullScaleS: 1000, laserOn: 'M3' as const };
  const path = join(folder, 'coupon.gcode');
  const stream = () => {
    const file = openSync(path, 'w');
    for (const part of gcodeParts(layout, options)) writeSync(file, part);
    closeSync(file);
  };
  stream();
  const program = readFileSync(path, 'utf8');
  const making = timed(9, stream);
  const copying = timed(9, () => writeFileSync(path, program));
  const ratio = making / copying;
  return {
    what: 'G-code, 400 cells at 0.025 mm, streamed',
    figure: `${making.toFixed(0)} ms, ${(program.length / 1e6).toFixed(1)} MB`,
    against: `writing the same bytes ${copying.toFixed(1)} ms`,
    ratio: `${ratio.toFixed(1)} × as long`,
    goal: '≤ 4 ×',
    met: ratio <= 4,
  };
}

/** In a real browser's worker: the whole of reading against decoding and reading the pixels back; long tasks and memory meanwhile. */
export async function readingInWorker(folder: string): Promise<Line[]> {
  const { layout, jpeg } = await hundredCells();
  const cluster = await startCluster({ folder: join(folder, 'worker'), durable: false });
  const files = join(folder, 'worker-files');
  const server = launchServer({ url: cluster.url, port: 0, files, env: { UNTO_DEMO: 'no' } });
  try {
    const worker = readdirSync(join(CLIENT, 'assets')).find((name) => /^computation\.worker.*\.js$/.test(name))!;
    const task = [jpeg.toString('base64'), `/assets/${worker}`, layout];
    const url = `${await server.address}/icon.svg`;
    // One browser after the other: pages of another would count with this one's memory.
    const often = await inPage(url, task, 'often');
    const once = await inPage(url, task, 'once');
    const idle = await inPage(url, task, 'idle');
    const ratio = often.whole / often.decode;
    return [
      {
        what: '12-megapixel photo, 100 cells, in the worker',
        figure: `${often.whole.toFixed(0)} ms whole, ${often.cells} cells read, ${often.longTasks} tasks over 50 ms on the page`,
        against: `decoding and reading back ${often.decode.toFixed(0)} ms`,
        ratio: `${ratio.toFixed(1)} × as long`,
        goal: '≤ 3 ×, page never blocked',
        met: ratio <= 3 && often.longTasks === 0,
      },
      {
        what: 'memory of the page while it reads',
        figure: `${once.peakMb.toFixed(0)} MB at most, the browser's own included`,
        against: `the page before it reads ${idle.peakMb.toFixed(0)} MB`,
        ratio: `${((once.peakMb - idle.peakMb) / 49).toFixed(1)} × the picture’s pixels on top`,
        goal: '≤ 400 MB',
        met: once.peakMb <= 400,
      },
    ];
  } finally {
    await server.stop();
    cluster.stop();
  }
}

/** What a page of its own tells, and the largest resident size it came to. */
async function inPage(
  url: string,
  task: readonly unknown[],
  how: 'often' | 'once' | 'idle',
): Promise<{ decode: number; whole: number; longTasks: number; cells: number; peakMb: number }> {
  const browser = await openBrowser();
  try {
    await browser.driver.get(url);
    await browser.driver.manage().setTimeouts({ script: 120_000 });
    const found = (await browser.driver.executeAsyncScript(IN_PAGE, ...task, how)) as {
      decode: number;
      whole: number;
      longTasks: number;
      cells: number;
      fault?: string;
    };
    if (found.fault) throw new Error(found.fault);
    return { ...found, peakMb: rendererPeakMb() };
  } finally {
    await browser.close();
  }
}

/** Largest resident size that any page process of this browser came to, MB. */
function rendererPeakMb(): number {
  const peaks = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer')) return [];
        return [Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024];
      } catch {
        return [];
      }
    });
  return Math.max(0, ...peaks);
}

/** Runs in the page: speaks to the worker as the product does, by comlink's messages. */
const IN_PAGE = `
const [base64, workerUrl, layout, often, done] = arguments;
(async () => {
  const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
  const blob = new Blob([bytes], { type: 'image/jpeg' });
  const worker = new Worker(workerUrl, { type: 'module' });
  let next = 0;
  const ask = (name, value) => new Promise((resolve, reject) => {
    const id = String(next++);
    const listen = ({ data }) => {
      if (data.id !== id) return;
      worker.removeEventListener('message', listen);
      const answer = data.value;
      if (!answer || !answer.ok) reject(new Error(JSON.stringify(answer)));
      else resolve(answer.value);
    };
    worker.addEventListener('message', listen);
    worker.postMessage({ id, type: 'APPLY', path: [name], argumentList: [{ type: 'RAW', value }] });
  });
  const decodeOnly = async () => {
    const begun = performance.now();
    const bitmap = await createImageBitmap(blob, { imageOrientation: 'from-image' });
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    const context = canvas.getContext('2d', { willReadFrequently: true });
    context.drawImage(bitmap, 0, 0);
    context.getImageData(0, 0, bitmap.width, bitmap.height);
    return performance.now() - begun;
  };
  let longTasks = 0, cells = 0;
  const spans = [];
  const whole = async () => {
    const begun = performance.now();
    await ask('openCoupon', { key: 'bench', picture: blob });
    const { reading } = await ask('readCoupon', { key: 'bench', layout, corners: null });
    cells = reading.cells.filter(({ unreadable }) => !unreadable).length;
    const ended = performance.now();
    spans.push([begun, ended]);
    return ended - begun;
  };
  if (often === 'idle') await ask('drawing', layout);
  if (often === 'idle') return done({ whole: 0, decode: 0, longTasks, cells });
  if (often === 'once') return done({ whole: await whole(), decode: 0, longTasks, cells });
  // The compiler warms up on both sides alike.
  for (let k = 0; k < 3; k += 1) { await decodeOnly(); await whole(); }
  const tasks = [];
  const watch = new PerformanceObserver((list) => tasks.push(...list.getEntries()));
  watch.observe({ entryTypes: ['longtask'] });
  spans.length = 0;
  // In turn, so that a machine with other work slows both; seven pairs, the middle ratio.
  const pairs = [];
  for (let k = 0; k < 7; k += 1) pairs.push({ decode: await decodeOnly(), whole: await whole() });
  pairs.sort((a, b) => a.whole / a.decode - b.whole / b.decode);
  // Decoding for comparison runs on the page itself; what counts is what blocks it while the worker reads.
  longTasks = tasks.filter(({ startTime }) => spans.some(([from, to]) => startTime >= from && startTime < to)).length;
  watch.disconnect();
  done({ ...pairs[3], longTasks, cells });
})().catch((error) => done({ fault: String(error) }));
`;
