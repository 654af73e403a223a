import {
  BarcodeFormat,
  BinaryBitmap,
  DataMatrixReader,
  GlobalHistogramBinarizer,
  RGBLuminanceSource,
} from '@zxing/library';
import fc from 'fast-check';
import SVGPathCommander from 'svg-path-commander';
import { svgPathProperties } from 'svg-path-properties';
import { describe, expect, it } from 'vitest';
import { dataMatrixModules } from '../lettering/index.js';
import {
  dxfArtwork,
  gcodeArtwork,
  imageArtwork,
  measureArtwork,
  spansOf,
  svgArtwork,
  type ArtworkMeasure,
  type ArtworkSaid,
} from './index.js';

const AS_IS: ArtworkSaid = { unit: null, closed: 'filled', widthMm: null };
const svg = (inside: string, size = 'width="40mm" height="30mm" viewBox="0 0 40 30"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${size}>${inside}</svg>`;
const measured = (inside: string, size?: string): ArtworkMeasure =>
  measureArtwork(svgArtwork(svg(inside, size), AS_IS));

/** Paths of every command, absolute and relative, curved both ways. */
const PATHS = [
  'M2 2C10 0 20 18 30 10S38 25 20 26Q10 28 6 20T2 2Z',
  'M5 5h20v10h-8l-4 6-8-6z',
  'M10 15a8 5 30 0 0 12 -4a9 6 0 0 0 -12 4z',
  'M1 1c3 0 6 2 6 6s4 9 12 9 9-8 14-8l3 14-20 6c-9 0-15-12-15-27z',
];

describe('lengths, areas and boxes against independent SVG libraries (svg-path-properties, svg-path-commander)', () => {
  it.each(PATHS)('%s', (d) => {
    const filled = measured(`<path d="${d}"/>`);
    expect(filled.filledMm2).toBeCloseTo(Math.abs(SVGPathCommander.getPathArea(d)), 0);
    expect(filled.filledMm2 / Math.abs(SVGPathCommander.getPathArea(d))).toBeCloseTo(1, 2);
    const box = SVGPathCommander.getPathBBox(d);
    expect(filled.widthMm).toBeCloseTo(box.width, 2);
    expect(filled.heightMm).toBeCloseTo(box.height, 2);
    const line = measured(`<path d="${d}" fill="none" stroke="black" stroke-width="0.4"/>`);
    expect(line.linesMm / new svgPathProperties(d).getTotalLength()).toBeCloseTo(1, 3);
    expect(line.filledMm2).toBe(0);
  });

  it('a circle of radius 9 mm holds π·81 mm², whichever way it is written', () => {
    const area = Math.PI * 81;
    for (const shape of [
      '<circle cx="15" cy="15" r="9"/>',
      '<ellipse cx="15" cy="15" rx="9" ry="9"/>',
      '<path d="M6 15a9 9 0 1 1 18 0a9 9 0 1 1 -18 0z"/>',
      '<rect x="6" y="6" width="18" height="18" rx="9"/>',
    ])
      expect(measured(shape).filledMm2 / area).toBeCloseTo(1, 3);
  });
});

describe('real size', () => {
  it.each([
    ['width="2in" height="1in" viewBox="0 0 200 100"', 25.4],
    ['width="192" height="96" viewBox="0 0 200 100"', 25.4],
    ['width="5.08cm" height="2.54cm" viewBox="0 0 200 100"', 25.4],
    ['width="144pt" height="72pt" viewBox="0 0 200 100"', 25.4],
    ['width="12pc" height="6pc" viewBox="0 0 200 100"', 25.4],
    ['viewBox="0 0 200 100"', (100 * 25.4) / 96],
    ['width="100%" height="100%" viewBox="0 0 200 100"', (100 * 25.4) / 96],
    // A viewBox of another shape is shrunk into the place, not stretched.
    ['width="4in" height="1in" viewBox="0 0 200 100"', 25.4],
  ])('a square of 100 in %s is so many mm', (size, mm) => {
    const { widthMm, heightMm } = measured('<rect width="100" height="100"/>', size);
    expect(widthMm).toBeCloseTo(mm, 6);
    expect(heightMm).toBeCloseTo(mm, 6);
  });

  it('is brought to a width', () => {
    const { widthMm, heightMm, shapes } = svgArtwork(svg('<rect x="3" y="4" width="20" height="10"/>'), {
      ...AS_IS,
      widthMm: 38,
    });
    expect([widthMm, heightMm]).toEqual([38, expect.closeTo(19, 9)]);
    expect([...shapes[0]!.rings[0]!].slice(0, 2)).toEqual([0, expect.closeTo(19, 9)]);
  });

  it('follows transforms, parts used again and nested drawings', () => {
    expect(
      measured('<g transform="rotate(30) scale(2)"><rect width="4" height="3" transform="skewX(10)"/></g>').filledMm2,
    ).toBeCloseTo(48, 1);
    expect(
      measured('<defs><rect id="a" width="4" height="3"/></defs><use href="#a"/><use xlink:href="#a" x="10" y="5"/>')
        .filledMm2,
    ).toBeCloseTo(24, 1);
    expect(
      measured('<svg x="5" y="5" width="10" height="10" viewBox="0 0 100 100"><rect width="100" height="50"/></svg>')
        .filledMm2,
    ).toBeCloseTo(50, 1);
  });
});

describe('what is marked', () => {
  it('what lies over one another counts once, white over it leaves bare', () => {
    const both = '<rect width="10" height="10"/><rect x="5" width="10" height="10"/>';
    expect(measured(both).filledMm2).toBeCloseTo(150, 1);
    expect(measured(`${both}<circle cx="7" cy="5" r="3" fill="#fff"/>`).filledMm2).toBeCloseTo(150 - 9 * Math.PI, 1);
    expect(measured(`<circle cx="7" cy="5" r="3" fill="white"/>${both}`).filledMm2).toBeCloseTo(150, 1);
  });

  it('by the fill rule', () => {
    const d = 'M0 0H10V10H0ZM2 2H8V8H2Z';
    expect(measured(`<path d="${d}"/>`).filledMm2).toBeCloseTo(100, 1);
    expect(measured(`<path d="${d}" fill-rule="evenodd"/>`).filledMm2).toBeCloseTo(64, 1);
    expect(measured(`<path d="M0 0H10V10H0ZM2 2V8H8V2Z"/>`).filledMm2).toBeCloseTo(64, 1);
  });

  it('by attributes, style sheets and styles, each over the other', () => {
    const sheet = '<style>.out{fill:none;stroke:#000}.gone{display:none}#b{fill:red}</style>';
    const read = measured(
      `${sheet}<rect class="out" width="10" height="5"/><rect class="gone" width="30" height="30"/>`,
    );
    expect([read.filledMm2, read.linesMm]).toEqual([0, expect.closeTo(30, 9)]);
    expect(measured(`${sheet}<rect class="out" style="fill:black" width="10" height="5"/>`).filledMm2).toBeCloseTo(
      50,
      1,
    );
    expect(measured(`${sheet}<rect class="out" id="b" width="10" height="5"/>`).filledMm2).toBeCloseTo(50, 1);
    expect(
      measured('<g fill="none"><rect width="9" height="9"/><rect fill="black" width="10" height="5"/></g>').filledMm2,
    ).toBeCloseTo(50, 1);
  });

  it('runs, fetches and expands nothing, and says what it left out', () => {
    const { said } = svgArtwork(
      svg(
        '<rect width="5" height="5"/><script>alert(1)</script><text>Ines</text><image href="http://127.0.0.1/a.png"/><use href="http://127.0.0.1/b.svg#x"/>',
      ),
      AS_IS,
    );
    expect(said.join(' ')).toBe(
      'Left out: 1 × scripts, 1 × letters (turn text into outlines), 1 × pictures inside, 1 × parts outside the file.',
    );
    const bomb = `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]>${svg('<title>&b;</title>')}`;
    expect(() => svgArtwork(bomb, AS_IS)).toThrow(/entity of its own/);
    expect(() => svgArtwork(svg('<g id="a"><use href="#a"/><rect width="1" height="1"/></g>'), AS_IS)).not.toThrow();
  });

  it('refuses what holds nothing, is no number, or no SVG', () => {
    expect(() => svgArtwork(svg('<rect width="0" height="5"/>'), AS_IS)).toThrow(/Nothing in this file/);
    expect(() => svgArtwork(svg('<path d="M0 0L NaN 4"/>'), AS_IS)).toThrow(/cannot be read/);
    expect(() => svgArtwork(svg('<rect width="1e999" height="5"/>'), AS_IS)).toThrow(/is no length/);
    expect(() => svgArtwork('<svg><rect></svg>', AS_IS)).toThrow(/well-formed/);
    expect(() => svgArtwork('<html></html>', AS_IS)).toThrow(/no SVG/);
  });
});

describe('the narrowest stroke and gap', () => {
  it.each([0, 17, 45, 73, 90])('two bars 0.6 mm wide, 0.3 mm apart, turned by %i°', (turn) => {
    const bars = '<rect x="2" y="2" width="0.6" height="12"/><rect x="2.9" y="2" width="0.6" height="12"/>';
    const read = measured(`<g transform="rotate(${turn} 20 15)">${bars}</g>`);
    expect(read.smallestStroke!.mm).toBeCloseTo(0.6, 2);
    expect(read.smallestGap!.mm).toBeCloseTo(0.3, 2);
  });

  it('a ring 0.5 mm thick, and the tip of a wedge is none', () => {
    const ring = measured(
      '<path fill-rule="evenodd" d="M10 15a8 8 0 1 0 16 0a8 8 0 1 0 -16 0zM10.5 15a7.5 7.5 0 1 0 15 0a7.5 7.5 0 1 0 -15 0z"/>',
    );
    expect(Math.abs(ring.smallestStroke!.mm - 0.5)).toBeLessThan(0.015);
    const wedge = measured('<path d="M0 0L20 10L0 20Z"/>').smallestStroke;
    expect(wedge === null || wedge.mm > 5).toBe(true);
  });
});

describe('rows', () => {
  it('come to the area at any angle (property)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 30, noNaN: true }), fc.double({ min: 0, max: 30, noNaN: true })), {
          minLength: 3,
          maxLength: 9,
        }),
        fc.integer({ min: -90, max: 90 }),
        (corners, angleDeg) => {
          const ring = Float64Array.from([...corners, corners[0]!].flat());
          // Even-odd area by a fine raster of points: brute force, not our rows.
          const inside = (x: number, y: number) =>
            corners.reduce((is, [xa, ya], i) => {
              const [xb, yb] = corners[(i + 1) % corners.length]!;
              return ya > y !== yb > y && x < xa + ((y - ya) / (yb - ya)) * (xb - xa) ? !is : is;
            }, false);
          let points = 0;
          for (let i = 0; i < 120; i += 1)
            for (let j = 0; j < 120; j += 1) if (inside((i + 0.5) / 4, (j + 0.5) / 4)) points += 1;
          const spans = spansOf([{ as: 'marked', rule: 'evenodd', rings: [ring], drawnMm: null }], {
            spacingMm: 0.05,
            angleDeg,
          });
          const area = spans.from.reduce((sum, from, i) => sum + spans.to[i]! - from, 0) * 0.05;
          expect(Math.abs(area - points / 16)).toBeLessThan(6);
        },
      ),
      { numRuns: 40, seed: 7 },
    );
  });
});

const dxf = (entities: string, units: number | null = 4) =>
  `0\nSECTION\n2\nHEADER\n${units === null ? '' : `9\n$INSUNITS\n70\n${units}\n`}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const line = (x0: number, y0: number, x1: number, y1: number) =>
  `0\nLINE\n8\n0\n10\n${x0}\n20\n${y0}\n11\n${x1}\n21\n${y1}\n`;

describe('DXF', () => {
  const SQUARE = line(0, 0, 10, 0) + line(10, 10, 10, 0) + line(10, 10, 0, 10) + line(0, 0, 0, 10);

  it('joins strokes that meet, and fills or follows what they close as said', () => {
    const filled = measureArtwork(dxfArtwork(dxf(SQUARE), AS_IS));
    expect([filled.filledMm2, filled.lines]).toEqual([expect.closeTo(100, 1), 0]);
    const followed = measureArtwork(dxfArtwork(dxf(SQUARE), { ...AS_IS, closed: 'followed' }));
    expect([followed.filledMm2, followed.linesMm, followed.lines]).toEqual([0, 40, 1]);
  });

  it('takes the unit it names, asks where it names none', () => {
    expect(dxfArtwork(dxf(SQUARE, 1), AS_IS).widthMm).toBeCloseTo(254, 6);
    expect(() => dxfArtwork(dxf(SQUARE, null), AS_IS)).toThrow(/millimetres or inches/);
    expect(() => dxfArtwork(dxf(SQUARE, 0), AS_IS)).toThrow(/millimetres or inches/);
    expect(dxfArtwork(dxf(SQUARE, null), { ...AS_IS, unit: 'in' }).widthMm).toBeCloseTo(254, 6);
  });

  it('cuts circles, and polylines that bulge by a half circle, to a thousandth', () => {
    const circle = measureArtwork(dxfArtwork(dxf('0\nCIRCLE\n8\n0\n10\n20\n20\n20\n40\n5\n'), AS_IS));
    expect(circle.filledMm2 / (25 * Math.PI)).toBeCloseTo(1, 2);
    const slot =
      '0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n10\n0\n20\n0\n10\n10\n20\n0\n42\n1\n10\n10\n20\n4\n10\n0\n20\n4\n42\n1\n';
    expect(measureArtwork(dxfArtwork(dxf(slot), AS_IS)).filledMm2 / (40 + 4 * Math.PI)).toBeCloseTo(1, 2);
  });

  it('says what it leaves out, and refuses what draws nothing', () => {
    expect(dxfArtwork(dxf(SQUARE + '0\nTEXT\n8\n0\n10\n0\n20\n0\n40\n2\n1\nInes\n'), AS_IS).said).toEqual([
      'Left out: 1 × TEXT.',
    ]);
    expect(() => dxfArtwork(dxf('0\nTEXT\n8\n0\n10\n0\n20\n0\n40\n2\n1\nInes\n'), AS_IS)).toThrow(/1 × TEXT/);
    expect(() => dxfArtwork(dxf(line(0, 0, Number.NaN, 4)), AS_IS)).toThrow(/not at a number/);
  });
});

describe('programs and pictures', () => {
  it('follows what a program burns, arcs too, and nothing else', () => {
    const { widthMm, heightMm } = gcodeArtwork(
      'G21 G90\nG0 X5 Y5\nM3 S500\nG1 X15 F600\nG3 X15 Y25 I0 J10\nM5\nG0 X90 Y90',
      AS_IS,
    );
    expect(widthMm).toBeCloseTo(20, 2);
    expect(heightMm).toBeCloseTo(20, 4);
    expect(measureArtwork(gcodeArtwork('G20 G91\nM4 S1\nG1 X1\nG1 Y1 S0\nG1 X1 S1', AS_IS)).linesMm).toBeCloseTo(
      50.8,
      6,
    );
    expect(() => gcodeArtwork('G1 X10 Y10', AS_IS)).toThrow(/Nothing/);
    expect(() => gcodeArtwork('M3 S1\nG1 XNaN', AS_IS)).toThrow(/Line 2/);
  });

  it('marks the dots of a picture', () => {
    const dots = Uint8Array.from([1, 1, 0, 1, 1, 0, 0, 0, 1]);
    const read = measureArtwork(imageArtwork({ width: 3, height: 3, dots }, 0.5));
    expect(read.filledMm2).toBeCloseTo(5 * 0.25, 3);
    expect(() => imageArtwork({ width: 3, height: 3, dots }, null)).toThrow(/how large/);
    expect(() => imageArtwork({ width: 3, height: 3, dots: new Uint8Array(9) }, 1)).toThrow(/Nothing/);
  });
});

describe('data matrix', () => {
  it.each(['A-0012', 'https://unto.local/pieces/48', 'Bed 7, north wall'])(
    '“%s” reads back with an independent reader',
    (text) => {
      const dark = dataMatrixModules(text);
      const [scale, quiet] = [8, 4];
      const side = (dark.length + 2 * quiet) * scale;
      const grey = new Uint8ClampedArray(side * side).fill(255);
      for (let y = 0; y < side; y += 1)
        for (let x = 0; x < side; x += 1)
          if (dark[Math.floor(y / scale) - quiet]?.[Math.floor(x / scale) - quiet]) grey[y * side + x] = 0;
      const found = new DataMatrixReader().decode(
        new BinaryBitmap(new GlobalHistogramBinarizer(new RGBLuminanceSource(grey, side, side))),
      );
      expect(found.getText()).toBe(text);
      expect(found.getBarcodeFormat()).toBe(BarcodeFormat.DATA_MATRIX);
    },
  );

  it('says what is too long for it', () => {
    expect(() => dataMatrixModules('x'.repeat(4000))).toThrow(/too long/);
  });
});
