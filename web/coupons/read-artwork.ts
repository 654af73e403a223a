import type { ArtworkPoint, CouponDesign } from '@unto/core';

/** Step along a path, mm; finer than any spot here. */
const STEP_MM = 0.08;
const MOST_POINTS = 20_000;
const SHAPES = 'path, line, polyline, polygon, rect, circle, ellipse';

/**
 * Strokes of an SVG in mm, origin at the lower left of what it draws. The browser itself walks along its shapes, so that every kind of
 * curve and transform is understood. @throws Error with what is wrong
 */
export function readArtwork(name: string, text: string): NonNullable<CouponDesign['artwork']> {
  const parsed = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement;
  if (parsed.nodeName !== 'svg')
    throw new Error(`“${name}” is no SVG. Bring the artwork as SVG with its shapes as paths.`);
  const host = document.createElement('div');
  host.style.cssText = 'position:absolute;visibility:hidden;width:0;height:0;overflow:hidden';
  // Only shapes are taken over: nothing in a brought file runs or loads.
  const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  for (const key of ['viewBox', 'width', 'height'])
    if (parsed.hasAttribute(key)) svg.setAttribute(key, parsed.getAttribute(key)!);
  for (const shape of parsed.querySelectorAll(SHAPES)) {
    const copy = document.importNode(shape, false) as SVGGeometryElement;
    for (const { name: key } of [...copy.attributes]) if (/^on|href$/i.test(key)) copy.removeAttribute(key);
    copy.setAttribute('transform', transformsOf(shape, parsed));
    svg.append(copy);
  }
  document.body.append(host);
  host.append(svg);
  try {
    return {
      name,
      strokes: atOrigin([...svg.children].flatMap((shape) => walked(shape as SVGGeometryElement, mmPerUnit(parsed)))),
    };
  } finally {
    host.remove();
  }
}

/** Transforms of a shape and of the groups it stands in, outermost first. */
function transformsOf(shape: Element, root: Element): string {
  const found: string[] = [];
  for (let at: Element | null = shape; at && at !== root; at = at.parentElement)
    found.unshift(at.getAttribute('transform') ?? '');
  return found.join(' ');
}

/** Millimetres a user unit stands for; without a size in mm a unit is a CSS pixel of 1/96 in. */
function mmPerUnit(svg: Element): number {
  const width = /^([\d.]+)\s*(mm|cm|in|pt|px)?$/.exec(svg.getAttribute('width') ?? '');
  const box = svg
    .getAttribute('viewBox')
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const unit = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, px: 25.4 / 96 }[width?.[2] ?? 'px'] ?? 25.4 / 96;
  return width && box?.[2] ? (Number(width[1]) * unit) / box[2] : unit;
}

function walked(shape: SVGGeometryElement, scale: number): ArtworkPoint[][] {
  const matrix = shape.transform.baseVal.consolidate()?.matrix ?? new DOMMatrix();
  const length = shape.getTotalLength();
  if (!(length > 0)) return [];
  const count = Math.max(2, Math.ceil((length * scale) / STEP_MM) + 1);
  const strokes: ArtworkPoint[][] = [[]];
  let before: DOMPoint | null = null;
  for (let i = 0; i < count; i += 1) {
    const at = DOMPoint.fromPoint(shape.getPointAtLength((length * i) / (count - 1))).matrixTransform(matrix);
    // A leap much longer than a step is a gap between subpaths.
    if (before && Math.hypot(at.x - before.x, at.y - before.y) * scale > 4 * STEP_MM) strokes.push([]);
    strokes.at(-1)!.push([at.x * scale, -at.y * scale]);
    before = at;
  }
  return strokes.filter((stroke) => stroke.length > 1);
}

function atOrigin(strokes: readonly ArtworkPoint[][]): ArtworkPoint[][] {
  const points = strokes.flat();
  if (!points.length) throw new Error('This SVG draws no paths: turn its text and pictures into paths first.');
  if (points.length > MOST_POINTS) throw new Error('This artwork is too rich for a cell: bring a smaller piece of it.');
  const [x0, y0] = [Math.min(...points.map(([x]) => x)), Math.min(...points.map(([, y]) => y))];
  const round = (value: number) => Number(value.toFixed(3));
  return strokes.map((stroke) => stroke.map(([x, y]): ArtworkPoint => [round(x - x0), round(y - y0)]));
}
