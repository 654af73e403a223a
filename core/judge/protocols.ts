/** What is done to a piece to see what its mark stands, and how far. */
export interface Protocol {
  readonly code: string;
  readonly words: string;
  readonly unit: 'rubs' | 'strokes' | 'double rubs' | 'cycles' | 'months';
  /** How much of it is usual; common practice, no source. */
  readonly usual: number;
  /** It takes the mark or the surface with it: done on a piece that is lost anyway. */
  readonly destructive: boolean;
  /** Days until it is looked at, where it does not end at the bench. */
  readonly days: number | null;
  /** What a part may meet, that this stands for. */
  readonly of: 'handling' | 'washing' | 'solvents' | 'abrasion' | 'dishwasher' | 'weather';
}

export const PROTOCOLS = [
  { code: 'thumb', words: 'Thumb', unit: 'rubs', usual: 10, destructive: false, days: null, of: 'handling' },
  {
    code: 'wet sponge',
    words: 'Wet sponge',
    unit: 'strokes',
    usual: 20,
    destructive: false,
    days: null,
    of: 'washing',
  },
  {
    code: 'pad, wet',
    words: 'Abrasive pad, wet',
    unit: 'strokes',
    usual: 40,
    destructive: false,
    days: null,
    of: 'abrasion',
  },
  {
    code: 'pad, dry',
    words: 'Abrasive pad, dry',
    unit: 'strokes',
    usual: 20,
    destructive: false,
    days: null,
    of: 'abrasion',
  },
  {
    code: 'alcohol',
    words: 'Denatured alcohol',
    unit: 'double rubs',
    usual: 10,
    destructive: false,
    days: null,
    of: 'solvents',
  },
  {
    code: 'ammonia',
    words: 'Strong ammonia',
    unit: 'double rubs',
    usual: 10,
    destructive: false,
    days: null,
    of: 'solvents',
  },
  { code: 'acetone', words: 'Acetone', unit: 'double rubs', usual: 10, destructive: false, days: null, of: 'solvents' },
  {
    code: '600 grit',
    words: '600 grit paper, wet',
    unit: 'strokes',
    usual: 10,
    destructive: true,
    days: null,
    of: 'abrasion',
  },
  {
    code: 'dishwasher',
    words: 'Dishwasher',
    unit: 'cycles',
    usual: 25,
    destructive: false,
    days: 14,
    of: 'dishwasher',
  },
  { code: 'weather', words: 'Weather', unit: 'months', usual: 6, destructive: false, days: 183, of: 'weather' },
] as const satisfies readonly Protocol[];
export type ProtocolCode = (typeof PROTOCOLS)[number]['code'];

/** A protocol by its code. */
export function protocolOf(code: ProtocolCode): Protocol {
  return PROTOCOLS.find((one) => one.code === code)!;
}

/** What a mark stood of a protocol, in words. */
export function stoodWords(stood: {
  readonly protocol: ProtocolCode;
  readonly doseDone: number;
  readonly dose: number;
  readonly result: string;
}): string {
  const { words, unit } = protocolOf(stood.protocol);
  return `${words}, ${stood.doseDone} of ${stood.dose} ${unit}: ${stood.result}`;
}

/**
 * How much each protocol says of how long a mark lasts on a part: what it will meet counts twice what it may meet, grit that takes any mark off
 * counts nothing. Common practice, no source.
 */
export function lastingWeight(code: ProtocolCode, { foodUse }: { readonly foodUse: boolean }): number {
  const { of, destructive } = protocolOf(code);
  if (destructive) return 0;
  if (of === 'dishwasher') return foodUse ? 2 : 0.5;
  if (of === 'solvents') return foodUse ? 0.5 : 1;
  if (of === 'handling') return 0.5;
  return 1;
}
