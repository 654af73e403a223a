import type { Figure, Interval } from './figure.js';

interface Measurement {
  readonly words: string;
  /** Inputs whose error the same measurement makes good. */
  readonly settles?: readonly string[];
}

/** What at the bench settles an input that is no more than usual. Common practice, no source. */
export const MEASUREMENTS: Readonly<Record<string, Measurement>> = {
  'share reaching the part': {
    words: 'Weigh the parts bare and coated, twice: the share that reaches them is then measured.',
    settles: ['solids by mass'],
  },
  'solids by mass': { words: 'Read the solids by mass off its data sheet, or weigh parts bare and coated.' },
  'dry density': { words: 'Read the dry density off its data sheet, or measure one weighed coat with a gauge.' },
  'share of solids, thinner counted': {
    words: 'Read the solids by volume off its data sheet, or lay one coat by the comb.',
  },
  'container price': { words: 'Type what the container cost.' },
  'empty container': { words: 'Weigh an empty container of its kind once.' },
  'rated power': { words: 'Put a power meter under the head, or read its label.' },
  'depth of focus of the lens': { words: 'Hunt the focus once on scrap: it measures the depth.' },
};

/** The one measurement that narrows a figure most, and the interval that would be left. */
export interface TellsMost {
  readonly label: string;
  readonly words: string;
  readonly interval: Interval;
}

/** Less than this off the width of the interval is not worth a measurement. */
const WORTH = 0.9;

/**
 * Which one measurement would tell most of a figure that rests on usual values: the one that leaves the narrowest interval, in the
 * logarithm; null where none narrows it by a tenth.
 */
export function tellsMost({ value, interval, inputs }: Figure): TellsMost | null {
  if (!interval || !(value > 0) || !(interval.low > 0)) return null;
  const width = ({ low, high }: { low: number; high: number }) => Math.log(high / low);
  const open = inputs.filter(({ factor, label }) => factor !== undefined && MEASUREMENTS[label]);
  const found = open.map(({ label }) => {
    const { words, settles = [] } = MEASUREMENTS[label]!;
    const gone = open.filter((other) => other.label === label || settles.includes(other.label));
    const squares = gone.reduce((sum, { factor }) => sum + Math.log(factor!) ** 2, 0);
    const away = (bound: number) => Math.exp(Math.sqrt(Math.max(0, Math.log(bound / value) ** 2 - squares)));
    const left = { low: value / away(interval.low), high: value * away(interval.high), level: interval.level };
    return { label, words, interval: left };
  });
  const best = found.sort((a, b) => width(a.interval) - width(b.interval))[0];
  return best && width(best.interval) < WORTH * width(interval) ? best : null;
}
