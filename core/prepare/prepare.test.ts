import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  layoutSheet,
  nestSheet,
  overlap,
  sheetDxf,
  sheetSvg,
  sparesFigure,
  sparesFor,
  type NestJob,
  type SheetJob,
} from './index.js';

const JOB: SheetJob = {
  sheet: { widthMm: 300, heightMm: 200 },
  piece: { widthMm: 38, heightMm: 22 },
  gapMm: 1,
  marginMm: 5,
  keepOuts: [],
};

describe('spare pieces', () => {
  it('with a yield that is known is the binomial: of 12 at 0.9 ten hold 0.889 times, of 13 0.966 times (standard tables)', () => {
    const known = { pieces: 10, made: 1_000_000, good: 900_000 };
    expect(sparesFor({ ...known, confidence: 0.88 })).toBe(2);
    expect(sparesFor({ ...known, confidence: 0.9 })).toBe(3);
    expect(sparesFor({ ...known, confidence: 0.97 })).toBe(4);
  });

  it('asks for more while little is known, and for more still when more went wrong', () => {
    const job = { pieces: 30, confidence: 0.9 };
    const few = sparesFor({ ...job, made: 10, good: 9 });
    const many = sparesFor({ ...job, made: 1000, good: 900 });
    const bad = sparesFor({ ...job, made: 1000, good: 700 });
    expect(few).toBeGreaterThan(many);
    expect(bad).toBeGreaterThan(many);
    expect(sparesFor({ ...job, made: 5000, good: 5000 })).toBe(0);
  });

  it('never falls with pieces or with how sure one wants to be', () => {
    const whole = (max: number) => fc.integer({ min: 1, max });
    fc.assert(
      fc.property(whole(120), whole(60), whole(20), (pieces, half, bad) => {
        const good = bad + half;
        const job = { pieces, made: good + bad, good, confidence: 0.8 };
        expect(sparesFor({ ...job, confidence: 0.95 })).toBeGreaterThanOrEqual(sparesFor(job));
        expect(sparesFor({ ...job, pieces: pieces + 10 })).toBeGreaterThanOrEqual(sparesFor(job));
      }),
      { numRuns: 40 },
    );
  });

  it('adds the coupon, and is usual practice until something was made', () => {
    const figure = sparesFigure({ pieces: 12, made: 0, good: 0, confidence: 0.9, coupons: 2, of: 'this pairing' });
    expect(figure).toMatchObject({ grade: 'usual', unit: 'pieces' });
    expect(figure.value).toBeGreaterThan(3);
    expect(
      sparesFigure({ pieces: 12, made: 200, good: 198, confidence: 0.9, coupons: 1, of: 'this pairing' }),
    ).toMatchObject({ grade: 'measured' });
    expect(sparesFigure({ pieces: 12, made: 200, good: 198, confidence: 0.9, coupons: 1, of: 'this shop' }).grade).toBe(
      'carried',
    );
    const one = { pieces: 2, made: 5000, good: 5000, confidence: 0.9, coupons: 1, of: 'this pairing' } as const;
    expect(sparesFigure(one)).toMatchObject({ value: 1, unit: 'piece' });
    expect(() => sparesFor({ pieces: 10, made: 30, good: 0, confidence: 0.9 })).toThrow(/no number of spares/);
    expect(() => sparesFor({ pieces: 1, made: 3, good: 4, confidence: 0.9 })).toThrow(/4 good pieces of 3/);
    expect(() => sparesFor({ pieces: 0, made: 3, good: 3, confidence: 0.9 })).toThrow(/above 0/);
  });
});

describe('what a sheet gives', () => {
  it('counts rows and columns with kerf and margin: 7 × 8 of 38 × 22 on 300 × 200', () => {
    // (300 − 10 + 1) ÷ 39 = 7.46; (200 − 10 + 1) ÷ 23 = 8.3
    expect(layoutSheet(JOB)).toMatchObject({ columns: 7, rows: 8, turned: false, lost: 0 });
    // The same sheet half an inch under its label gives a column less.
    expect(layoutSheet({ ...JOB, sheet: { widthMm: 300 - 27.3, heightMm: 200 } }).places).toHaveLength(48);
  });

  it('turns the pieces when that gives more', () => {
    const layout = layoutSheet({ ...JOB, sheet: { widthMm: 100, heightMm: 49 } });
    expect(layout).toMatchObject({ turned: true, columns: 3, rows: 1 });
  });

  it('never overlaps, leaves the sheet, or meets a keep-out', () => {
    const size = (max: number) => fc.double({ min: 5, max, noNaN: true });
    const box = fc.record({ xMm: size(250), yMm: size(180), widthMm: size(80), heightMm: size(80) });
    fc.assert(
      fc.property(
        size(60),
        size(60),
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.array(box, { maxLength: 3 }),
        (w, h, gapMm, keepOuts) => {
          const layout = layoutSheet({ ...JOB, piece: { widthMm: w, heightMm: h }, gapMm, keepOuts });
          layout.places.forEach((place, i) => {
            expect(place.xMm).toBeGreaterThanOrEqual(JOB.marginMm - 1e-6);
            expect(place.xMm + place.widthMm).toBeLessThanOrEqual(300 - JOB.marginMm + 1e-6);
            expect(place.yMm + place.heightMm).toBeLessThanOrEqual(200 - JOB.marginMm + 1e-6);
            expect(keepOuts.some((out) => overlap(place, out))).toBe(false);
            if (i > 0) expect(overlap(place, layout.places[i - 1]!)).toBe(false);
          });
          expect(layout.places.length + layout.lost).toBe(layout.columns * layout.rows);
          expect(layout.used).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('refuses a sheet smaller than one blank, and sizes of nothing', () => {
    expect(() => layoutSheet({ ...JOB, sheet: { widthMm: 40, heightMm: 25 } })).toThrow(
      /Not one piece of 38 × 22 mm fits on 40 × 25 mm/,
    );
    expect(() => layoutSheet({ ...JOB, piece: { widthMm: 0, heightMm: 22 } })).toThrow(/above 0/);
    expect(() => layoutSheet({ ...JOB, piece: { widthMm: 0.5, heightMm: 0.5 } })).toThrow(/at most 5000/);
    expect(() => layoutSheet({ ...JOB, gapMm: -1 })).toThrow(/negative/);
  });
});

describe('a jig', () => {
  const jig = { firstXMm: 10, firstYMm: 8, pitchXMm: 45, pitchYMm: 30, shiftMm: 0 };
  it('keeps its own raster: (300 − 5 − 10 − 38) ÷ 45 + 1 = 6 across, (200 − 5 − 8 − 22) ÷ 30 + 1 = 6 up', () => {
    const layout = layoutSheet({ ...JOB, jig, testPlaces: 3 });
    expect(layout).toMatchObject({ columns: 6, rows: 6, lost: 0, test: 3 });
    expect(layout.places[7]).toMatchObject({ xMm: 55, yMm: 38 });
  });

  it('loses what a shift takes over the margin, and refuses a pitch closer than the piece', () => {
    const layout = layoutSheet({ ...JOB, jig: { ...jig, shiftMm: 30 } });
    expect(layout.lost).toBe(3);
    expect(layout.places[6]!.xMm).toBe(40);
    expect(() => layoutSheet({ ...JOB, jig: { ...jig, pitchXMm: 30 } })).toThrow(/would overlap/);
    expect(() => layoutSheet({ ...JOB, jig: { ...jig, firstXMm: 290 } })).toThrow(/Not one piece/);
  });
});

describe('nesting mixed sizes', () => {
  const kind = (widthMm: number, heightMm: number, count: number, test = false) => ({
    label: '',
    widthMm,
    heightMm,
    count,
    test,
  });
  const NEST: NestJob = {
    sheet: { widthMm: 300, heightMm: 200 },
    gapMm: 1,
    marginMm: 5,
    keepOuts: [],
    seed: 1,
    kinds: [],
  };

  it('fills a sheet that can be filled: two halves and four quarters of it', () => {
    const sheet = { widthMm: 100, heightMm: 60 };
    const layout = nestSheet({ ...NEST, sheet, gapMm: 0, marginMm: 0, kinds: [kind(50, 30, 2), kind(50, 60, 1)] });
    expect(layout).toMatchObject({ leftOut: [0, 0], used: 1, ofBound: 1 });
  });

  it('never overlaps, leaves the sheet, comes nearer than the kerf, or meets a keep-out; and loses no piece', () => {
    const size = (max: number) => fc.double({ min: 4, max, noNaN: true });
    const box = fc.record({ xMm: size(250), yMm: size(150), widthMm: size(60), heightMm: size(60) });
    const kinds = fc.array(fc.tuple(size(90), size(90), fc.integer({ min: 0, max: 12 })), {
      minLength: 1,
      maxLength: 5,
    });
    fc.assert(
      fc.property(
        kinds,
        fc.array(box, { maxLength: 3 }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        (sizes, keepOuts, gapMm) => {
          const all = [kind(10, 10, 1), ...sizes.map(([w, h, count]) => kind(w, h, count))];
          const layout = nestSheet({ ...NEST, kinds: all, keepOuts, gapMm });
          layout.places.forEach((place, i) => {
            expect(Math.min(place.xMm, place.yMm)).toBeGreaterThanOrEqual(5 - 1e-6);
            expect(place.xMm + place.widthMm).toBeLessThanOrEqual(295 + 1e-6);
            expect(place.yMm + place.heightMm).toBeLessThanOrEqual(195 + 1e-6);
            const roomy = { ...place, widthMm: place.widthMm + gapMm - 1e-6, heightMm: place.heightMm + gapMm - 1e-6 };
            layout.places.slice(i + 1).forEach((other) => expect(overlap(roomy, other)).toBe(false));
            expect(keepOuts.some((out) => overlap(place, out))).toBe(false);
          });
          all.forEach(({ count }, k) => {
            expect(layout.places.filter((place) => place.kind === k).length + layout.leftOut[k]!).toBe(count);
          });
          expect(layout.ofBound).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('comes out the same from one seed, tells how far it is, and stops when told', () => {
    const job = { ...NEST, kinds: [kind(37, 23, 30), kind(51, 17, 30), kind(29, 44, 30)] };
    expect(nestSheet(job)).toEqual(nestSheet(job));
    const told: number[] = [];
    nestSheet(job, ({ round }) => {
      told.push(round);
      return round < 2;
    });
    expect(told).toEqual([1, 2]);
  });

  it('refuses what cannot be laid, and too much at once', () => {
    expect(() => nestSheet({ ...NEST, kinds: [kind(400, 300, 1)] })).toThrow(/Not one of these/);
    expect(() => nestSheet({ ...NEST, kinds: [kind(10, 10, 0)] })).toThrow(/Say how many/);
    expect(() => nestSheet({ ...NEST, kinds: [kind(10, 10, 2001)] })).toThrow(/more than the 2000/);
    expect(() => nestSheet({ ...NEST, kinds: [kind(0, 10, 1)] })).toThrow(/above 0/);
    expect(nestSheet({ ...NEST, kinds: [kind(400, 300, 1), kind(20, 10, 1)] }).leftOut).toEqual([1, 0]);
  });
});

describe('the layout as files', () => {
  const job: SheetJob = {
    ...JOB,
    sheet: { widthMm: 100, heightMm: 60 },
    keepOuts: [{ xMm: 0, yMm: 0, widthMm: 20, heightMm: 20 }],
  };
  const layout = layoutSheet({ ...job, testPlaces: 1 });
  const drawn = { ...job, places: layout.places, isTest: (i: number) => i === layout.places.length - 1 };

  it('SVG is at true scale in mm, y turned up, with a ruler to check a printout', () => {
    const svg = sheetSvg(drawn);
    expect(svg).toMatch(/width="140mm" height="74mm" viewBox="0 0 140 74"/);
    expect(svg.match(/<rect/g)).toHaveLength(1 + layout.places.length + 1);
    const first = layout.places[0]!;
    expect(svg).toContain(`x="${first.xMm}" y="${60 - first.yMm - first.heightMm}"`);
    expect(svg.match(/stroke-dasharray/g)).toHaveLength(1);
    expect(svg).toMatch(/50 mm: check against a rule/);
  });

  it('DXF R12 reads back to the same rectangles: group codes and values in pairs', () => {
    const lines = sheetDxf(drawn).split('\r\n').slice(0, -1);
    const pairs = Array.from({ length: lines.length / 2 }, (_, i) => [lines[2 * i]!, lines[2 * i + 1]!] as const);
    expect(pairs.at(-1)).toEqual(['0', 'EOF']);
    const corners: number[][] = [];
    let layer = '';
    pairs.forEach(([code, value], i) => {
      if (code === '0' && value === 'VERTEX') {
        layer = pairs[i + 1]![1];
        if (layer === 'PIECES') corners.push([Number(pairs[i + 2]![1]), Number(pairs[i + 3]![1])]);
      }
    });
    expect(corners).toHaveLength(4 * (layout.places.length - 1));
    const { xMm, yMm, widthMm, heightMm } = layout.places[0]!;
    expect(corners.slice(0, 4)).toEqual([
      [xMm, yMm],
      [xMm + widthMm, yMm],
      [xMm + widthMm, yMm + heightMm],
      [xMm, yMm + heightMm],
    ]);
  });
});
