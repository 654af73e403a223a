import { requirePositive } from '../support/require.js';

/** One hatch line in mm from the lower left corner of its rectangle, in marking order. */
export interface HatchLine {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/**
 * Hatch lines of a rectangle at an angle (degrees, −90 to 90), first line half an interval inside the edge; two-way turns every
 * second line round. At 0° all lines are equally long, at other angles they are clipped at the rectangle (slab method).
 * @throws value.not-positive
 */
export function hatchLines(
  size: { widthMm: number; heightMm: number },
  hatch: { intervalMm: number; angleDeg: number; directions: 'one-way' | 'two-way' },
): HatchLine[] {
  requirePositive('interval', hatch.intervalMm);
  const angle = (hatch.angleDeg * Math.PI) / 180;
  const along = [Math.cos(angle), Math.sin(angle)] as const;
  const across = [-along[1], along[0]] as const;
  const centre = [size.widthMm / 2, size.heightMm / 2] as const;
  const reach = Math.abs(across[0]) * centre[0] + Math.abs(across[1]) * centre[1];
  const count = Math.max(1, Math.round((2 * reach) / hatch.intervalMm));
  const lines: HatchLine[] = [];
  for (let i = 0; i < count; i += 1) {
    const offset = (i - (count - 1) / 2) * hatch.intervalMm;
    const line = clip([centre[0] + across[0] * offset, centre[1] + across[1] * offset], along, size);
    if (!line) continue;
    const back = hatch.directions === 'two-way' && lines.length % 2 === 1;
    lines.push(back ? { x0: line.x1, y0: line.y1, x1: line.x0, y1: line.y0 } : line);
  }
  return lines;
}

function clip(
  through: readonly [number, number],
  along: readonly [number, number],
  size: { widthMm: number; heightMm: number },
): HatchLine | null {
  let from = -Infinity;
  let to = Infinity;
  const limits = [size.widthMm, size.heightMm];
  for (const axis of [0, 1] as const) {
    if (Math.abs(along[axis]) < 1e-12) {
      if (through[axis] < 0 || through[axis] > limits[axis]!) return null;
      continue;
    }
    const t0 = -through[axis] / along[axis];
    const t1 = (limits[axis]! - through[axis]) / along[axis];
    from = Math.max(from, Math.min(t0, t1));
    to = Math.min(to, Math.max(t0, t1));
  }
  if (to - from < 1e-9) return null;
  return {
    x0: through[0] + along[0] * from,
    y0: through[1] + along[1] * from,
    x1: through[0] + along[0] * to,
    y1: through[1] + along[1] * to,
  };
}
