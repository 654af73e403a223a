import { describe, expect, it } from 'vitest';
import { layoutCoupon } from '@unto/core';
import { designOf, firstDraft } from './design-form';
import { blockOf, blockQuery, type ProposedBlock } from '../window/proposed-block';
import { draftOfBlock } from './next-draft';

const BLOCK: ProposedBlock = {
  powersPercent: [70, 96],
  speedsMmPerS: [62, 160],
  rest: { intervalMm: 0.08, passes: 1, focusOffsetMm: -0.5, frequencyKHz: null, pulseNs: null },
};
const LIMITS = { bed: { widthMm: 700, heightMm: 500 }, topSpeedMmPerS: 600, firingThresholdPercent: 7 };
const PLACE = { limits: LIMITS, reading: null };

describe('the block that a window proposes', () => {
  it('goes through an address and comes back', () => {
    expect(blockOf(blockQuery(BLOCK))).toEqual(BLOCK);
    const pulsed = { ...BLOCK, rest: { ...BLOCK.rest, frequencyKHz: 60, pulseNs: 120 } };
    expect(blockOf(blockQuery(pulsed))).toEqual(pulsed);
  });

  it('is none where the address holds nothing that can be run', () => {
    for (const query of [undefined, '', '70_96', '0_96_62_160', 'a_b_c_d', ['70_96_62_160']])
      expect(blockOf(query)).toBeNull();
  });

  it('makes four powers by six speeds at the window’s own interval and focus', () => {
    const draft = draftOfBlock(firstDraft(LIMITS), BLOCK, PLACE);
    expect(draft.x).toMatchObject({ parameter: 'power', from: 70, to: 96, count: 4 });
    expect(draft.y).toMatchObject({ parameter: 'speed', spacing: 'log', from: 62, to: 160, count: 6 });
    expect(draft).toMatchObject({ intervalMm: 0.08, focusOffsetMm: -0.5, third: false });
  });

  it('turns to lie on a wide blank, and shrinks its cells on a small one', () => {
    const wide = draftOfBlock({ ...firstDraft(LIMITS), blankWidthMm: 44.6, blankHeightMm: 27.8 }, BLOCK, PLACE);
    expect(wide.x.parameter).toBe('speed');
    expect(() => layoutCoupon(designOf(wide), LIMITS)).not.toThrow();
    const small = draftOfBlock({ ...firstDraft(LIMITS), blankWidthMm: 40, blankHeightMm: 26 }, BLOCK, PLACE);
    expect(small.cellWidthMm).toBeLessThan(5);
  });
});
