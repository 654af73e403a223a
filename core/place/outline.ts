import { mmText as number } from '../formats/xml.js';
import { requireFinite, requirePositive, requireWithin } from '../support/require.js';
import type { PlanePoint } from './fit-circle.js';

/** An outline burnt into cardboard or tape before the piece is laid into it, mm. */
export interface TrialOutline {
  readonly shape: 'rectangle' | 'circle';
  /** Width of the rectangle, or the circle's diameter. */
  readonly widthMm: number;
  readonly heightMm: number;
  /** Lower left corner of the rectangle, or of the square round the circle. */
  readonly atXMm: number;
  readonly atYMm: number;
  /** Room left round the piece. */
  readonly roomMm: number;
  readonly powerPercent: number;
  readonly speedMmPerS: number;
}

/** A corner of the drawn path, mm. */
export type PathPoint = readonly [xMm: number, yMm: number];

/** Length of the arms of the cross at the middle, mm. */
const CROSS_MM = 5;
/** A circle is drawn by chords that leave it by no more than this, mm. */
const CHORD_SAG_MM = 0.02;

/**
 * The strokes of a trial outline: the shape with its room round it, and a cross at its middle to lay the piece by.
 * @throws value.not-positive, value.not-finite, value.out-of-range
 */
export function outlineStrokes(outline: TrialOutline): PathPoint[][] {
  const room = requireFinite('room', outline.roomMm);
  const w = requirePositive('width', outline.widthMm) + 2 * room;
  const h = requirePositive('height', outline.shape === 'circle' ? outline.widthMm : outline.heightMm) + 2 * room;
  requirePositive('width with its room', w);
  requirePositive('height with its room', h);
  const [x, y] = [requireFinite('x', outline.atXMm) - room, requireFinite('y', outline.atYMm) - room];
  const [cx, cy] = [x + w / 2, y + h / 2];
  const arm = Math.min(CROSS_MM, w / 4, h / 4);
  const shape: PathPoint[] =
    outline.shape === 'circle'
      ? circle(cx, cy, w / 2)
      : [
          [x, y],
          [x + w, y],
          [x + w, y + h],
          [x, y + h],
          [x, y],
        ];
  return [
    shape,
    [
      [cx - arm, cy],
      [cx + arm, cy],
    ],
    [
      [cx, cy - arm],
      [cx, cy + arm],
    ],
  ];
}

/**
 * A trial outline as G-code in the common RS-274 subset, mm: constant power, the beam off between strokes, home at the end.
 * @param fullScaleS S at full power
 * @throws as outlineStrokes; value.out-of-range for a power off 0 to 100 %
 */
export function outlineGcode(outline: TrialOutline, fullScaleS: number): string {
  return strokesGcode('trial outline: cardboard or tape, not the part', outlineStrokes(outline), outline, fullScaleS);
}

/** Where a machine burns a cross, and how long its arms are, mm. */
const CROSS_ARM_MM = 4;

/**
 * Crosses burnt on scrap, by which a picture learns where the machine’s zero is; as G-code like a trial outline’s.
 * @throws value.out-of-range, value.not-positive, value.not-finite
 */
export function crossesGcode(at: readonly PlanePoint[], how: StrokeSetting, fullScaleS: number): string {
  const strokes = at.flatMap(({ xMm, yMm }): PathPoint[][] => {
    const [x, y] = [requireFinite('x', xMm), requireFinite('y', yMm)];
    return [
      [
        [x - CROSS_ARM_MM, y],
        [x + CROSS_ARM_MM, y],
      ],
      [
        [x, y - CROSS_ARM_MM],
        [x, y + CROSS_ARM_MM],
      ],
    ];
  });
  return strokesGcode('crosses: scrap, not the part', strokes, how, fullScaleS);
}

/** How strokes are followed. */
export type StrokeSetting = Pick<TrialOutline, 'powerPercent' | 'speedMmPerS'>;

function strokesGcode(
  title: string,
  strokes: readonly PathPoint[][],
  { powerPercent, speedMmPerS }: StrokeSetting,
  fullScaleS: number,
): string {
  const percent = requireWithin('power', requirePositive('power', powerPercent), 0, 100);
  const s = number((requirePositive('full scale', fullScaleS) * percent) / 100);
  const feed = number(requirePositive('speed', speedMmPerS) * 60);
  const lines = [`(${title})`, '(keep the enclosure shut; never leave a running laser)', 'G21', 'G90', 'M5'];
  for (const stroke of strokes) {
    const [[x0, y0], ...rest] = stroke as [PathPoint, ...PathPoint[]];
    lines.push(`G0 X${number(x0)} Y${number(y0)}`, 'M3 S0');
    rest.forEach(([x, y], i) => lines.push(`G1 X${number(x)} Y${number(y)}${i === 0 ? ` F${feed} S${s}` : ''}`));
    lines.push('M5');
  }
  return [...lines, 'G0 X0 Y0', '(end)', ''].join('\n');
}

/** A trial outline as SVG 1.1 at true scale, y up turned into y down. @throws as outlineStrokes */
export function outlineSvg(outline: TrialOutline): string {
  const strokes = outlineStrokes(outline);
  const across = Math.max(...strokes.flat().map(([x]) => x)) + 5;
  const up = Math.max(...strokes.flat().map(([, y]) => y)) + 5;
  const path = strokes
    .map((stroke) => stroke.map(([x, y], i) => `${i ? 'L' : 'M'}${number(x)} ${number(up - y)}`).join(''))
    .join('');
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${number(across)}mm" height="${number(up)}mm" viewBox="0 0 ${number(across)} ${number(up)}">
<path d="${path}" fill="none" stroke="#000" stroke-width="0.1"/>
</svg>
`;
}

function circle(cx: number, cy: number, radius: number): PathPoint[] {
  const half = Math.acos(Math.max(-1, 1 - CHORD_SAG_MM / radius));
  const count = Math.max(12, Math.ceil(Math.PI / half));
  return Array.from({ length: count + 1 }, (_, k): PathPoint => {
    const turn = (2 * Math.PI * k) / count;
    return [cx + radius * Math.cos(turn), cy + radius * Math.sin(turn)];
  });
}
