import { type StartingPoint } from '@unto/core';
import type { CompoundBody, HeadBody, StatedSetting, SubstrateBody } from '@unto/contract';
import { HEAD_KINDS } from '../kinds/index.js';

/** What somebody left out of a note, and what is taken for it until it is typed. */
export interface Assumed {
  /** The stated setting, and what it does not say. */
  readonly id: string;
  readonly part: 'topSpeedMmPerS' | 'ratedW';
  readonly title: string;
  readonly source: string;
  /** Between these lie the heads of its beam that are usual, mm/s or W. */
  readonly low: number;
  readonly high: number;
}

/** What was typed for parts that notes leave out, under `assumedKey`. */
export type Typed = ReadonlyMap<string, number>;
export const assumedKey = ({ id, part }: Pick<Assumed, 'id' | 'part'>) => `${id} ${part}`;

interface Span {
  readonly low: number;
  readonly high: number;
}

/** Whether a stated setting speaks of a compound (null: bare) on this part under this beam, and nobody wrote that it was lost. */
export function isStatedFor(
  one: StatedSetting,
  {
    head,
    substrate,
  }: { readonly head: Pick<HeadBody, 'wavelengthClass'>; readonly substrate: Pick<SubstrateBody, 'family'> },
  compound: Pick<CompoundBody, 'name' | 'form'> | null,
): boolean {
  const plain = (words: string) => words.trim().toLowerCase();
  const names = compound ? [compound.name, compound.form].map(plain) : [''];
  const here = one.family === substrate.family && one.wavelengthClass === head.wavelengthClass;
  return here && one.past?.outcome !== 'lost' && names.includes(plain(one.compound));
}

/**
 * The points that a stated setting comes to. Percent of a power or speed that nobody said are taken of the heads that are usual with its
 * beam: the point then spans them, and is no better than usual. Whatever is typed for them is taken instead.
 */
export function statedPoint(one: StatedSetting, typed: Typed = new Map()): StartingPoint[] {
  const power = powerOf(one, typed);
  const speed = speedOf(one, typed);
  if (!power || !speed) return [];
  const powerW = Math.sqrt(power.low * power.high);
  const assumed = assumedOf(one).filter((part) => !typed.has(assumedKey(part)));
  return [
    {
      powerW,
      // As far as the power is not known the dose is not: the speeds carry that too.
      speedMmPerS: { low: speed.low * (powerW / power.high), high: speed.high * (powerW / power.low) },
      intervalMm: one.intervalMm,
      grade: assumed.length ? 'usual' : 'stated',
      source: [`${one.title}: ${one.source}`, ...assumed.map(assumedWords)].join(', '),
    },
  ];
}

function powerOf(one: StatedSetting, typed: Typed): Span | null {
  if (one.powerW! > 0) return { low: one.powerW!, high: one.powerW! };
  return shareOf(one, 'ratedW', one.powerPercent, typed);
}

function speedOf(one: StatedSetting, typed: Typed): Span | null {
  if (one.speedMmPerS! > 0) return { low: one.speedMmPerS!, high: one.speedMmPerS! };
  return shareOf(one, 'topSpeedMmPerS', one.speed?.unit === '%' ? one.speed.value : null, typed);
}

function shareOf(one: StatedSetting, part: Assumed['part'], percent: number | null, typed: Typed): Span | null {
  if (!(percent! > 0)) return null;
  const said = typed.get(assumedKey({ id: one.id, part }));
  const full = said ? { low: said, high: said } : usualSpan(one, part);
  return full && { low: (full.low * percent!) / 100, high: (full.high * percent!) / 100 };
}

/** What a stated setting leaves out and would need. */
export function assumedOf(one: StatedSetting): Assumed[] {
  const missing: Assumed['part'][] = [
    ...(one.powerW === null && one.powerPercent! > 0 ? (['ratedW'] as const) : []),
    ...(one.speedMmPerS === null && one.speed?.unit === '%' ? (['topSpeedMmPerS'] as const) : []),
  ];
  return missing.flatMap((part) => {
    const span = usualSpan(one, part);
    return span ? [{ id: one.id, part, title: one.title, source: one.source, ...span }] : [];
  });
}

/** From the weakest or slowest to the strongest or fastest of the kinds of heads with its beam. */
function usualSpan({ wavelengthClass }: StatedSetting, part: Assumed['part']): Span | null {
  const kinds = HEAD_KINDS.filter(({ body }) => body.wavelengthClass === wavelengthClass);
  const values = kinds.map(({ body, machine }) => (part === 'ratedW' ? body.ratedW : machine.topSpeedMmPerS));
  const known = values.filter((value): value is number => typeof value === 'number');
  return known.length ? { low: Math.min(...known), high: Math.max(...known) } : null;
}

const PART_WORDS = { ratedW: ['power of that head', 'W'], topSpeedMmPerS: ['top speed of that head', 'mm/s'] } as const;

function assumedWords({ part, low, high }: Assumed): string {
  const [name, unit] = PART_WORDS[part];
  return `the ${name}, not said, taken as ${low} to ${high} ${unit}`;
}
