// @vitest-environment happy-dom
import { usualRules, type Outcome, type ProposedOutcome, type Stage } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { computed, reactive, ref } from 'vue';
import type { OpenedPicture, TakenByHand } from './opened-picture';
import { useOutcomes } from './useOutcomes';

const ENTRIES = {
  ...{
    fileHash: 'h',
    card: 'A5',
    print: null,
    reprojectionErrorMm: 0.02,
    mmPerPx: 0.114,
    blurUm: 230,
    unevenness: 2.14,
    byHand: false,
  },
  ...{ corners: [], code: 'K-031', noise: 0.5, edgeFloorUm: 80 },
  cells: [0, 1, 2].map((cell) => ({ cell, unreadable: cell === 2 ? 'glare' : null })),
};
const PICTURE = {
  ...{ hash: 'h', keptAs: null, at: null, photo: null, level: null, corners: [], sure: true },
  ...{ missing: ['upper left'], tookS: 0.52, entries: ENTRIES },
} as unknown as OpenedPicture;

function outcomes(picture: OpenedPicture | null, kept: [number, Outcome][] = [], stage: Stage = 'scrubbed') {
  const byHand = reactive({ rinsed: new Map<number, TakenByHand>(), scrubbed: new Map<number, TakenByHand>() });
  const proposals = { rinsed: new Map(), scrubbed: new Map() } as Record<Stage, Map<number, ProposedOutcome>>;
  proposals[stage].set(0, { outcome: 'holds', sure: true, because: 'within all limits' });
  proposals[stage].set(1, { outcome: 'over', sure: true, because: 'tinted' });
  const marked: [number, Outcome | null][] = [];
  const pictures = {
    ...{
      pictures: { rinsed: null, scrubbed: null, [stage]: picture },
      byHand,
      rules: ref(usualRules('dark on light')),
    },
    ...{ proposals: computed(() => proposals), burnt: () => true },
    outcomes: (of: Stage) => new Map([...proposals[of]].map(([cell, { outcome }]) => [cell, outcome])),
  };
  const eye = {
    marks: ref(new Map<number, Outcome>([[1, 'under']])),
    kept: ref(new Map(kept)),
    reads: ref(new Map(kept.map(([cell, outcome]) => [cell, { outcome, byEye: false, lookedAgain: false }]))),
    mark: (cell: number, outcome: Outcome | null) => marked.push([cell, outcome]),
  };
  const selected = ref(0);
  const state = {
    made: ref({ layout: { cells: [0, 1, 2].map((index) => ({ index })) } }),
    stage: ref(stage),
    pictures,
    eye,
  };
  return { ...useOutcomes({ ...state, selected, brush: ref('holds') } as never), selected, byHand, marked };
}

describe('outcomes of a coupon', () => {
  it('are those its picture proposes, with what it rests on in words', () => {
    const { shown, unreadable, about, grade } = outcomes(PICTURE);
    expect([...shown.value]).toEqual([
      [0, 'holds'],
      [1, 'over'],
    ]);
    expect([...unreadable.value]).toEqual([[2, 'glare']]);
    expect(about.value).toBe(
      'card A5 found, upper left mark covered, straightened, light very uneven (1 : 2.1), levelled · 0.11 mm a pixel · 2 of 3 cells readable · read in 0.5 s',
    );
    expect(grade.value).toBe('guess');
  });

  it('taken by hand stand over what is proposed, count as missing a reason, and go back when taken as proposed', () => {
    const { mark, shown, reasonsMissing, taken, byHand } = outcomes(PICTURE);
    mark(0, 'under');
    expect([shown.value.get(0), reasonsMissing.value, taken.value?.outcome]).toEqual(['under', 1, 'under']);
    byHand.scrubbed.set(0, { outcome: 'under', reason: 'scratched off' });
    mark(0, 'over');
    expect([byHand.scrubbed.get(0), reasonsMissing.value]).toEqual([{ outcome: 'over', reason: 'scratched off' }, 0]);
    mark(0, 'holds');
    expect([shown.value.get(0), taken.value]).toEqual(['holds', null]);
  });

  it('that are kept stand over what another reading proposes, and are proved only after the scrub', () => {
    const kept = outcomes({ ...PICTURE, keptAs: 'p1' }, [[0, 'under']]);
    expect([kept.shown.value.get(0), kept.grade.value]).toEqual(['under', 'proved']);
    expect(outcomes({ ...PICTURE, keptAs: 'p1' }, [[0, 'under']], 'rinsed').grade.value).toBe('seen');
  });

  it('without a picture are those marked by eye; the rest takes the brush and leaves what is marked', () => {
    const { shown, mark, rest, marked, about } = outcomes(null);
    expect([[...shown.value], about.value]).toEqual([[[1, 'under']], '']);
    mark(2, null);
    rest();
    expect(marked).toEqual([
      [2, null],
      [0, 'holds'],
      [2, 'holds'],
    ]);
  });
});
