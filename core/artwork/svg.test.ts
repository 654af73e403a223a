import { describe, expect, it } from 'vitest';
import {
  artworkWarnings,
  legibleHeight,
  measureArtwork,
  svgArtwork,
  type ArtworkMeasure,
  type MarkGrain,
} from './index.js';

const read = (inside: string, size = 'width="40mm" height="30mm" viewBox="0 0 40 30"') =>
  svgArtwork(`<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inside}</svg>`, {
    unit: null,
    closed: 'filled',
    widthMm: null,
  });
const measured = (inside: string, size?: string) => measureArtwork(read(inside, size));

describe('shapes', () => {
  it.each([
    ['<rect x="1" y="2" width="10" height="5"/>', 50],
    ['<rect x="1" y="2" width="10" height="5" rx="0"/>', 50],
    ['<rect x="1" y="2" width="10" height="6" rx="2"/>', 60 - 4 * (4 - Math.PI)],
    ['<rect x="1" y="2" width="10" height="6" ry="3" rx="5"/>', Math.PI * 15],
    ['<polygon points="0,0 10,0 10,10"/>', 50],
    ['<polyline points="0,0 10,0 10,10"/>', 50],
    ['<ellipse cx="9" cy="9" rx="6" ry="3"/>', 18 * Math.PI],
    ['<path d="M0 0h10v10h-10zm12 0h4v4h-4z"/>', 116],
    ['<path d="M0 0L10 0L10 10"/>', 50],
    ['<rect width="1cm" height="5mm"/>', 10 * 5 * (96 / 25.4) ** 2],
  ])('%s fills %d mm²', (shape, area) => expect(measured(shape).filledMm2 / area).toBeCloseTo(1, 2));

  it('lines are followed, whatever their fill', () => {
    const read = measured(
      '<line x1="0" y1="0" x2="30" y2="0" stroke="black"/><path d="M0 5h10v4" fill="none" stroke="#123"/>',
    );
    expect([read.lines, read.linesMm, read.filledMm2]).toEqual([2, expect.closeTo(44, 6), 0]);
  });

  it('a stroke keeps the width it was drawn at, enlarged as it is', () => {
    const { shapes } = read(
      '<g transform="scale(2)"><path d="M0 0h10" stroke="black" stroke-width="0.4" fill="none"/></g>',
    );
    expect(shapes[0]!.drawnMm).toBeCloseTo(0.8, 6);
  });
});

describe('paints', () => {
  const area = (paint: string) => {
    try {
      return Math.round(measured(`<rect width="40" height="30"/><rect ${paint} width="10" height="10"/>`).filledMm2);
    } catch {
      return null;
    }
  };
  it.each([
    ['fill="#fff"', 1100],
    ['fill="white"', 1100],
    ['fill="#fefefe"', 1100],
    ['fill="rgb(255, 255, 255)"', 1100],
    ['fill="rgb(100%,100%,100%)"', 1100],
    ['fill="#ccc"', 1200],
    ['fill="none"', 1200],
    ['fill="white" opacity="0"', 1200],
    ['fill="white" fill-opacity="0"', 1200],
    ['fill="white" visibility="hidden"', 1200],
    ['fill="white" display="none"', 1200],
    ['fill="url(#g)"', 1200],
    ['style="fill:#FFFFFF !important"', 1100],
  ])('%s over a black ground leaves %d mm²', (paint, left) => expect(area(paint)).toBe(left));

  it('are handed down, but for display and opacity of their own', () => {
    expect(measured('<g fill="none" stroke="black"><rect width="10" height="5"/></g>').linesMm).toBeCloseTo(30, 6);
    expect(
      measured(
        '<g visibility="hidden"><rect width="9" height="9"/><rect visibility="visible" width="10" height="5"/></g>',
      ).filledMm2,
    ).toBeCloseTo(50, 1);
    expect(() => measured('<g display="none"><rect width="9" height="9" style="display:inline"/></g>')).toThrow(
      /Nothing/,
    );
  });

  it('of style sheets go by element, class and id; what is more than that is not read', () => {
    const sheet = '<style>/* a */ rect, .b {fill: none} .c{fill:black} #d{fill:black} svg > rect{fill:red}</style>';
    const filled = (attributes: string) =>
      measured(`${sheet}<path d="M0 0h1v1z"/><rect ${attributes} width="10" height="10"/>`).filledMm2 > 50;
    expect([
      filled(''),
      filled('class="c"'),
      filled('class="x c"'),
      filled('id="d"'),
      filled('class="b" id="d"'),
    ]).toEqual([...[false, true, true, true, true]]);
  });
});

describe('places', () => {
  it.each([
    ['translate(3 4)', [3, 4]],
    ['translate(3)', [3, 0]],
    ['rotate(90 5 5)', [5, 0]],
    ['matrix(1 0 0 1 7 -2)', [7, -2]],
    ['scale(2) translate(1 1)', [2, 2]],
    ['nonsense(4)', [0, 0]],
  ])('%s', (transform, at) => {
    const [x, y] = at as [number, number];
    const size = transform.startsWith('scale') ? 10 : 5;
    const { shapes } = read(
      `<rect width="1" height="1" x="-10" y="-10"/><rect transform="${transform}" width="5" height="5"/>`,
    );
    const ring = [...shapes[1]!.rings[0]!];
    const xs = ring.filter((_, i) => i % 2 === 0);
    const ys = ring.filter((_, i) => i % 2);
    expect(Math.min(...xs) - 10).toBeCloseTo(x, 6);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(size, 6);
    const box = read(
      `<rect width="1" height="1" x="-10" y="-10"/><rect transform="${transform}" width="5" height="5"/>`,
    );
    expect(box.heightMm - Math.max(...ys) - 10).toBeCloseTo(y, 6);
  });

  it('a view box that begins elsewhere, a symbol brought to a size, an svg inside', () => {
    expect(
      measured('<rect x="110" y="50" width="10" height="5"/>', 'width="40mm" height="30mm" viewBox="100 40 40 30"')
        .filledMm2,
    ).toBeCloseTo(50, 1);
    const symbol = '<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol>';
    expect(measured(`${symbol}<use href="#s" width="20" height="20"/>`).filledMm2).toBeCloseTo(400, 0);
    expect(
      measured(`${symbol}<use href="#s" width="4" height="4" x="1"/><use href="#s" width="4" height="4" x="9"/>`)
        .filledMm2,
    ).toBeCloseTo(32, 1);
    const stretched = 'width="40mm" height="30mm" viewBox="0 0 20 30" preserveAspectRatio="none"';
    expect(measured('<rect width="10" height="10"/>', stretched).widthMm).toBeCloseTo(20, 6);
    const slice = 'width="40mm" height="30mm" viewBox="0 0 20 30" preserveAspectRatio="xMidYMid slice"';
    expect(measured('<rect width="10" height="10"/>', slice).widthMm).toBeCloseTo(20, 6);
  });

  it('says what is clipped or masked, and what stands for nothing', () => {
    const said = read(
      '<clipPath id="c"><rect width="1" height="1"/></clipPath><rect clip-path="url(#c)" width="9" height="9"/><rect mask="url(#m)" width="9" height="9"/><use href="#gone"/>',
    ).said.join(' ');
    expect(said).toMatch(/clips \(drawn whole\), 1 × masks \(drawn whole\), 1 × parts that are missing/);
  });
});

describe('what will not come out as drawn (common practice, no source)', () => {
  const GRAIN: MarkGrain = { spotMm: 0.15, intervalMm: 0.1, pieceWidthMm: 40, pieceHeightMm: 30 };
  const kinds = (inside: string, grain: Partial<MarkGrain> = {}) =>
    artworkWarnings(measured(inside), { ...GRAIN, ...grain }).map(({ kind }) => kind);
  const bars = (wide: number, apart: number) =>
    `<rect x="2" y="2" width="${wide}" height="9"/><rect x="${2 + wide + apart}" y="2" width="${wide}" height="9"/>`;

  it('strokes against the spot and two lines, gaps against the spot', () => {
    expect(kinds(bars(1, 1))).toEqual([]);
    expect(kinds(bars(0.1, 1))).toEqual(['stroke thinner than the spot']);
    expect(kinds(bars(0.18, 1))).toEqual(['stroke thinner than two lines']);
    expect(kinds(bars(0.18, 1), { intervalMm: null })).toEqual([]);
    expect(kinds(bars(1, 0.1))).toEqual(['gap closes']);
    expect(kinds(bars(0.1, 0.1))).toEqual(['stroke thinner than the spot', 'gap closes']);
  });

  it('open outlines that are filled, and what is larger than the piece', () => {
    expect(kinds('<path d="M0 0h20v20"/>')).toEqual(['open outline filled']);
    expect(kinds('<rect width="20" height="20"/>', { pieceWidthMm: 15 })).toEqual(['larger than the piece']);
    expect(kinds('<rect width="20" height="20"/>', { pieceWidthMm: null, pieceHeightMm: null })).toEqual([]);
  });

  it('points at the place', () => {
    const [warning] = artworkWarnings(
      measured(`<rect width="20" height="20"/><rect x="30" y="5" width="0.05" height="4"/>`),
      GRAIN,
    );
    expect(warning!.at!.xMm).toBeCloseTo(30, 0);
    expect(warning!.words).toMatch(/0\.05 mm wide and the spot 0\.15 mm/);
  });

  it('letters read from seven dots up', () => {
    expect(legibleHeight({ spotMm: 0.15, intervalMm: 0.08 })).toBeCloseTo(1.05, 9);
    expect(legibleHeight({ spotMm: 0.1, intervalMm: 0.2 })).toBeCloseTo(1.4, 9);
    expect(legibleHeight({ spotMm: 0.1, intervalMm: null })).toBeCloseTo(0.7, 9);
  });

  it('what rows come to: height that is marked, from the first mark to the last, spans between', () => {
    const { swept, sweptUp }: ArtworkMeasure = measured(
      '<rect width="4" height="10"/><rect x="16" width="4" height="10"/><rect y="20" width="20" height="5"/>',
    );
    expect(swept.heightMm).toBeCloseTo(15, 1);
    expect(swept.extentMm).toBeCloseTo(20, 1);
    expect(swept.spansPerRow).toBeCloseTo((2 * 10 + 5) / 15, 1);
    expect(swept.markedShare).toBeCloseTo((8 * 10 + 20 * 5) / (20 * 15), 2);
    expect(sweptUp.heightMm).toBeCloseTo(20, 1);
  });
});
