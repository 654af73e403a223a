import { isVitreous, protocolOf, type SubstrateFamily } from '@unto/core';
import type { LastingRow } from '@unto/contract';

/** What whoever gets the pieces should know. */
export interface CareFacts {
  /** Tests on pieces of this ticket. */
  readonly stood: readonly Pick<LastingRow, 'protocol' | 'doseDone' | 'result'>[];
  readonly foodUse: boolean;
  readonly family: SubstrateFamily;
}

/** How a marked piece is to be kept, in sentences: first what was tested here, then what holds anyway. Nothing untested is promised. */
export function careLines({ stood, foodUse, family }: CareFacts): string[] {
  const held = (code: string) => stood.filter(({ protocol, result }) => protocol === code && result === 'no change');
  const most = (code: string) => Math.max(0, ...held(code).map(({ doseDone }) => doseDone));
  const spoilt = (code: string) => stood.some(({ protocol, result }) => protocol === code && result !== 'no change');
  const cycles = most('dishwasher');
  const bad = [...new Set(stood.filter(({ result }) => result !== 'no change').map(({ protocol }) => protocol))];
  return [
    'Wash by hand with a soft sponge and mild soap.',
    spoilt('dishwasher')
      ? 'Not for the dishwasher: the mark grew paler there.'
      : cycles
        ? `A piece of this lot stood ${cycles} dishwasher cycles without a change; more were not tested.`
        : 'The dishwasher was not tested: keep it out.',
    'No scouring pads, steel wool or abrasive cleaners.',
    ...bad
      .filter((code) => code !== 'dishwasher')
      .map((code) => `${protocolOf(code).words}: it did not stand this unchanged. Keep it away.`),
    ...(foodUse
      ? [
          'Marked outside, away from lip and food. It is not certified for touching food unless the maker of the compound says so.',
        ]
      : []),
    ...(isVitreous(family) ? ['A marked vessel may be weaker: no sudden heat or cold, no pressure.'] : []),
  ];
}
