import { everyNode, type SvgNode } from './svg-tree.js';

/** How something is painted, as far as it decides what is marked; as inherited. */
export interface SvgPaint {
  readonly fill: string;
  readonly stroke: string;
  readonly 'fill-rule': string;
  readonly 'stroke-width': string;
  readonly display: string;
  readonly visibility: string;
  readonly opacity: string;
  readonly 'fill-opacity': string;
  readonly 'stroke-opacity': string;
}

/** Source: SVG 1.1, initial values. */
export const FIRST_PAINT: SvgPaint = {
  ...{ fill: 'black', stroke: 'none', 'fill-rule': 'nonzero', 'stroke-width': '1' },
  ...{ display: 'inline', visibility: 'visible', opacity: '1', 'fill-opacity': '1', 'stroke-opacity': '1' },
};
type Property = keyof SvgPaint;
const PROPERTIES = Object.keys(FIRST_PAINT) as Property[];
/** Not handed down: they hold for the element, and what is in it is not drawn either. */
const OWN: readonly Property[] = ['display', 'opacity'];

type Rules = ReadonlyMap<string, Readonly<Record<string, string>>>;

/** The rules of a drawing's style sheets whose selectors are one class, one id or one element; others are not read. */
export function styleRules(root: SvgNode): Rules {
  const rules = new Map<string, Record<string, string>>();
  for (const { name, text } of everyNode(root)) {
    if (name !== 'style') continue;
    const sheet = text.replace(/\/\*[\s\S]*?\*\//g, '');
    for (const [, selectors, body] of sheet.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
      for (const selector of selectors!.split(',').map((one) => one.trim())) {
        if (/^[.#]?[\w-]+$/.test(selector)) rules.set(selector, { ...rules.get(selector), ...declarations(body!) });
      }
    }
  }
  return rules;
}

function declarations(text: string): Record<string, string> {
  return Object.fromEntries(
    text
      .split(';')
      .map((one) => one.split(':').map((part) => part.trim()))
      .filter((pair): pair is [string, string] => pair.length === 2 && pair[0] !== '')
      .map(([name, value]) => [name.toLowerCase(), value.replace(/\s*!important$/, '')]),
  );
}

/** How an element is painted: attributes, then rules (element, class, id), then its own style, over what it inherits. */
export function paintOf({ name, attributes }: SvgNode, inherited: SvgPaint, rules: Rules): SvgPaint {
  const classes = (attributes['class'] ?? '').split(/\s+/).filter(Boolean);
  const said: Record<string, string> = {
    ...attributes,
    ...rules.get(name),
    ...Object.assign({}, ...classes.map((one) => rules.get(`.${one}`))),
    ...rules.get(`#${attributes['id'] ?? ''}`),
    ...declarations(attributes['style'] ?? ''),
  };
  const of = (property: Property) => {
    const value = said[property]?.trim();
    if (value === undefined || value === '' || value === 'inherit')
      return OWN.includes(property) && value !== 'inherit' ? FIRST_PAINT[property] : inherited[property];
    return value === 'currentColor' || value === 'currentcolor' ? (said['color'] ?? 'black') : value;
  };
  return Object.fromEntries(PROPERTIES.map((property) => [property, of(property)])) as unknown as SvgPaint;
}

/** What a paint comes to on a part: a mark, a place left bare (white or nearly), or nothing. */
export function paintMeans(paint: string, opacity: number): 'marked' | 'left bare' | null {
  if (paint === 'none' || paint === 'transparent' || !(opacity > 0)) return null;
  return lightness(paint) > 0.9 ? 'left bare' : 'marked';
}

/** Lightness 0 to 1 of the colours that can be near white; 0 for any other. */
function lightness(paint: string): number {
  const text = paint.toLowerCase();
  if (['white', 'snow', 'ivory', 'whitesmoke', 'ghostwhite', 'floralwhite', 'mintcream', 'azure'].includes(text))
    return 1;
  const hex = /^#([\da-f]{3}|[\da-f]{6})$/.exec(text)?.[1];
  if (hex) return mean([0, 1, 2].map((i) => hexByte(hex, i)));
  const parts = /^rgba?\(([^)]+)\)$/
    .exec(text)?.[1]
    ?.split(/[\s,/]+/)
    .filter(Boolean);
  if (!parts || parts.length < 3) return 0;
  return mean(parts.slice(0, 3).map((part) => (part.endsWith('%') ? parseFloat(part) / 100 : Number(part) / 255)));
}

function hexByte(hex: string, i: number): number {
  return hex.length === 3 ? parseInt(hex[i]! + hex[i]!, 16) / 255 : parseInt(hex.slice(2 * i, 2 * i + 2), 16) / 255;
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}
