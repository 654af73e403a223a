import { artworkOf, type Artwork, type ArtworkSaid, type ArtworkShape } from './shapes.js';
import {
  lengthPx,
  MM_PER_PX,
  pathOf,
  ringsOf,
  scaleOf,
  times,
  transformOf,
  UNMOVED,
  type Matrix,
} from './svg-geometry.js';
import { FIRST_PAINT, paintMeans, paintOf, styleRules, type SvgPaint } from './svg-style.js';
import { everyNode, svgTree, type SvgNode } from './svg-tree.js';

/** What stands in a drawing without being drawn where it stands. */
const NOT_DRAWN = [
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'pattern',
  'marker',
  'linearGradient',
  'radialGradient',
  'style',
  'title',
  'desc',
  'metadata',
  'filter',
];
/** What is left out, and what it is called in words. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  ...{
    text: 'letters (turn text into outlines)',
    image: 'pictures inside',
    script: 'scripts',
    foreignObject: 'foreign parts',
  },
  ...{
    animate: 'animation',
    animateTransform: 'animation',
    set: 'animation',
    iframe: 'foreign parts',
    video: 'foreign parts',
  },
};
/** How often a part may stand for another one that stands for another one. */
const DEEPEST_USE = 20;

interface Walk {
  readonly byId: ReadonlyMap<string, SvgNode>;
  readonly rules: ReturnType<typeof styleRules>;
  readonly shapes: ArtworkShape[];
  readonly leftOut: Map<string, number>;
}

/**
 * What an SVG marks, at its real size (96 px an inch where it says none): fills as painted one over the other, white ones leave bare, strokes are
 * followed once along their middle. Nothing in it is run or fetched: scripts, letters, pictures and whatever lies outside the file are left
 * out and said, as are clips and masks.
 * @throws artwork.unreadable, artwork.not-a-number, artwork.no-geometry, artwork.too-large
 */
export function svgArtwork(text: string, said: ArtworkSaid): Artwork {
  const root = svgTree(text);
  const byId = new Map<string, SvgNode>();
  for (const node of everyNode(root)) if (node.attributes['id']) byId.set(node.attributes['id'], node);
  const walk: Walk = { byId, rules: styleRules(root), shapes: [], leftOut: new Map() };
  // SVG counts down, machines up.
  const toMm: Matrix = [MM_PER_PX, 0, 0, -MM_PER_PX, 0, 0];
  visit(walk, root, { matrix: times(toMm, viewport(root)), paint: FIRST_PAINT, uses: 0 });
  return artworkOf(walk.shapes, sayLeftOut(walk.leftOut), said.widthMm);
}

interface Place {
  readonly matrix: Matrix;
  readonly paint: SvgPaint;
  readonly uses: number;
}

/** How what is inside an svg or symbol is brought to its size. Source: SVG 1.1, 7.8, preserveAspectRatio. */
function viewport({ attributes }: SvgNode): Matrix {
  const box = (attributes['viewBox'] ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [x, y, w, h] = box as [number, number, number, number];
  if (box.length !== 4 || !(w > 0) || !(h > 0)) return UNMOVED;
  const [width, height] = [lengthPx(attributes['width']) ?? w, lengthPx(attributes['height']) ?? h];
  let [sx, sy] = [width / w, height / h];
  const ratio = attributes['preserveAspectRatio'] ?? '';
  if (!/none/.test(ratio)) sx = sy = /slice/.test(ratio) ? Math.max(sx, sy) : Math.min(sx, sy);
  return [sx, 0, 0, sy, -x * sx + (width - w * sx) / 2, -y * sy + (height - h * sy) / 2];
}

function visit(walk: Walk, node: SvgNode, place: Place): void {
  const { name, attributes } = node;
  const words = LEFT_OUT[name];
  if (words) count(walk, words);
  if (words || NOT_DRAWN.includes(name)) return;
  const paint = paintOf(node, place.paint, walk.rules);
  if (paint.display === 'none' || Number(paint.opacity) === 0) return;
  if (attributes['clip-path'] && attributes['clip-path'] !== 'none') count(walk, 'clips (drawn whole)');
  if (attributes['mask'] && attributes['mask'] !== 'none') count(walk, 'masks (drawn whole)');
  const matrix = times(place.matrix, transformOf(attributes['transform']));
  if (name === 'use') use(walk, node, { ...place, matrix, paint });
  const path = pathOf(node);
  if (path !== null && paint.visibility !== 'hidden') draw(walk, { path, name }, { ...place, matrix, paint });
  for (const child of node.children) {
    const inner = child.name === 'svg' ? times(matrix, nested(child)) : matrix;
    visit(walk, child, { ...place, matrix: inner, paint });
  }
}

function nested(node: SvgNode): Matrix {
  const { attributes } = node;
  return times([1, 0, 0, 1, lengthPx(attributes['x']) ?? 0, lengthPx(attributes['y']) ?? 0], viewport(node));
}

function use(walk: Walk, { attributes }: SvgNode, place: Place): void {
  const href = attributes['href'] ?? attributes['xlink:href'] ?? '';
  const target = href.startsWith('#') ? walk.byId.get(href.slice(1)) : undefined;
  if (!target) return count(walk, href.startsWith('#') ? 'parts that are missing' : 'parts outside the file');
  if (place.uses >= DEEPEST_USE) return count(walk, 'parts that stand for themselves');
  const moved = times(place.matrix, [1, 0, 0, 1, lengthPx(attributes['x']) ?? 0, lengthPx(attributes['y']) ?? 0]);
  const uses = place.uses + 1;
  if (target.name !== 'symbol' && target.name !== 'svg') return visit(walk, target, { ...place, matrix: moved, uses });
  const size = Object.fromEntries(
    (['width', 'height'] as const).flatMap((key) => (attributes[key] ? [[key, attributes[key]]] : [])),
  );
  const inner = times(moved, viewport({ ...target, attributes: { ...target.attributes, ...size } }));
  const paint = paintOf(target, place.paint, walk.rules);
  for (const child of target.children) visit(walk, child, { matrix: inner, paint, uses });
}

function draw(walk: Walk, { path, name }: { path: string; name: string }, { matrix, paint }: Place): void {
  const rings = ringsOf(path, matrix);
  if (!rings.length) return;
  const opacity = Number(paint.opacity);
  const fill = name === 'line' ? null : paintMeans(paint.fill, opacity * Number(paint['fill-opacity']));
  const rule = paint['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
  if (fill) walk.shapes.push({ as: fill, rule, rings, drawnMm: null });
  const width = (lengthPx(paint['stroke-width']) ?? 1) * scaleOf(matrix);
  if (width > 0 && paintMeans(paint.stroke, opacity * Number(paint['stroke-opacity'])) === 'marked')
    walk.shapes.push({ as: 'line', rule, rings, drawnMm: width });
}

function count({ leftOut }: Walk, words: string): void {
  leftOut.set(words, (leftOut.get(words) ?? 0) + 1);
}

function sayLeftOut(leftOut: ReadonlyMap<string, number>): string[] {
  return leftOut.size ? [`Left out: ${[...leftOut].map(([words, n]) => `${n} × ${words}`).join(', ')}.`] : [];
}
