import { CRITERION_INFO, type Criterion, type RankedOption, type SwitchingPoint } from '@unto/core';
import { valueText } from './cell-text';

/** How each criterion is said of the one that does better in it. */
const BETTER: Record<Criterion, string> = {
  contrast: 'its contrast is stronger',
  rate: 'it is faster',
  evenness: 'it lies more evenly',
  cleaning: 'it cleans more easily',
  handling: 'it can wait on the rack',
  durability: 'it lasts better',
  cost: 'a piece costs less',
  availability: 'it is sooner to be had',
  help: 'its maker helps more',
  trackRecord: 'it has been relied on longer',
};

/** A lead of less than this is nobody's reason, points of 100. */
const NOTABLE = 0.5;

/** The winner against the second in words: why, by how much, how surely, and what it gives up. */
export interface Verdict {
  readonly title: string;
  readonly why: string;
  readonly givesUp: string;
  readonly sureness: 'clear' | 'likely' | 'open';
  readonly sure: string;
}

/** What a ranking comes to, in sentences. Null without options. */
export function verdictWords(ranked: readonly RankedOption[], currency: string): Verdict | null {
  const [first, second] = ranked;
  if (!first) return null;
  const { name } = first.option;
  if (!second) {
    return {
      title: `${name}, because nothing else is offered`,
      why: 'Everything else is withheld for this part and head.',
      givesUp: '',
      sureness: 'clear',
      sure: 'There is nothing to compare it with.',
    };
  }
  const leads = first.terms
    .map((term, i) => ({ term, other: second.terms[i]!, lead: term.points - second.terms[i]!.points }))
    .sort((a, b) => b.lead - a.lead);
  const reasons = leads.filter(({ lead }) => lead > NOTABLE).slice(0, 2);
  const losses = leads.filter(({ lead }) => lead < -NOTABLE).reverse();
  const because = reasons.map(({ term }) => BETTER[term.criterion]).join(' and ');
  return {
    title: because ? `${name}, because ${because}` : `${name} and ${second.option.name} come out alike`,
    why: [
      `${Math.round(first.score)} points of 100 against ${Math.round(second.score)} for ${second.option.name}.`,
      ...reasons.map(({ term }) => compared(term.criterion, first, second, currency)),
    ].join(' '),
    givesUp: losses.length
      ? `It gives up ${losses
          .slice(0, 2)
          .map(({ term, lead }) => `${points(-lead)} of ${CRITERION_INFO[term.criterion].label}`)
          .join(' and ')}.`
      : '',
    ...sureness(first.wins),
  };
}

function compared(criterion: Criterion, first: RankedOption, second: RankedOption, currency: string): string {
  const told = (option: RankedOption) => {
    const { figure } = option.option.estimates[criterion];
    return figure ? valueText(criterion, figure.value, currency) : 'not known';
  };
  const { label } = CRITERION_INFO[criterion];
  return `${label.charAt(0).toUpperCase()}${label.slice(1)}: ${told(first)} against ${told(second)}.`;
}

function points(lead: number): string {
  const whole = Math.max(1, Math.round(lead));
  return `${whole} point${whole === 1 ? '' : 's'}`;
}

function sureness(wins: number): Pick<Verdict, 'sureness' | 'sure'> {
  const of100 = Math.round(100 * wins);
  if (wins >= 0.9) return { sureness: 'clear', sure: `Clear: first in ${of100} of 100 draws from the evidence.` };
  if (wins >= 0.7) return { sureness: 'likely', sure: `Likely: first in ${of100} of 100 draws from the evidence.` };
  return { sureness: 'open', sure: `Too close to call: first in only ${of100} of 100 draws from the evidence.` };
}

/** Which weight must move how far before another comes first, in one or two sentences. */
export function switchingWords(
  points: readonly SwitchingPoint[],
  nameOf: (id: string) => string,
  mentioned = 3,
): string {
  if (points.length === 0) return 'No single weight changes the order.';
  const shown = points.slice(0, mentioned);
  const byName = new Map<string, string[]>();
  for (const point of shown) byName.set(nameOf(point.to), [...(byName.get(nameOf(point.to)) ?? []), moved(point)]);
  const sentences = [...byName].map(([name, moves]) => `${name} would be first if ${moves.join(', or ')}.`);
  const rest = points.length > shown.length ? '' : ' Nothing else changes the order.';
  return sentences.join(' ') + rest;
}

function moved({ criterion, factor, weight }: SwitchingPoint): string {
  const { label } = CRITERION_INFO[criterion];
  if (weight < 0.05) return `${label} did not count`;
  if (factor === Infinity) return `${label} counted ${weight.toFixed(1)}`;
  return factor > 1 ? `${label} counted ${times(factor)} as much` : `${label} counted ${percent(factor)} of that`;
}

function times(factor: number): string {
  return factor < 10 ? `${factor.toFixed(1)} times` : `${Math.round(factor)} times`;
}

function percent(factor: number): string {
  return `${Math.max(1, Math.round(100 * factor))} %`;
}
