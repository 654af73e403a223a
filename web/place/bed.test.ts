// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ref } from 'vue';
import JigPlaces from '../artwork/JigPlaces.vue';
import { by, item } from '../testing/shop';
import { mountOnTicket } from '../testing/ticket';
import PlaceStation from './PlaceStation.vue';

vi.mock('idb-keyval', () => import('../testing/memory-storage'));
beforeEach(() => localStorage.clear());
afterEach(() => vi.unstubAllGlobals());

const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const TICKET = {
  ...{ id: id(1), number: 7, version: 1, title: 'Tags', pieces: 6, markWidthMm: 38, markHeightMm: 22, coatMarginMm: 3 },
  ...{ substrateId: id(2), headId: id(4), lensId: id(5), compoundId: null, choiceReason: 'bare', state: 'open' },
  ...{ aim: { tone: 'dark on light', strength: 'clear', work: 'fill' }, foodUse: false, layoutId: null },
};
const ITEMS = [
  item('substrate', id(2), { name: 'Stainless', family: 'stainless', layer: 'bare' }),
  item('head', id(4), { name: 'Head', machineId: id(3), wavelengthClass: '10600' }),
  item('lens', id(5), {
    name: 'Lens',
    headId: id(4),
    spotXMm: 0.1,
    spotYMm: 0.1,
    depthOfFocusMm: 1,
    depthGrowth: 0.05,
  }),
  item('machine', id(3), { name: 'Long bench', topSpeedMmPerS: 600, fullScaleS: 1000 }),
];
const mm = (value: number) => ({ value, unit: 'mm', grade: 'measured', formula: 'alignTwoPoints', inputs: [] });
const ZERO = {
  ...{ id: id(8), kind: 'zero', ticketId: id(1), headId: id(4), lensId: id(5), decision: 'taken', note: '', by: id(6) },
  entries: {},
  result: { turn: { ...mm(0.4), unit: '°' }, zeroX: mm(10), zeroY: mm(12), longer: mm(0.12) },
  at: '2026-03-01T10:00:00.000Z',
};
const FITTED = { id: id(9), machineId: id(3), headId: id(4), lensId: id(5), at: '2026-03-02T10:00:00.000Z', by: id(6) };

async function picture(page: object) {
  const mounted = await mountOnTicket(PlaceStation, { ticket: TICKET, items: ITEMS, page });
  await mounted.page.find(by('place-picture')).trigger('click');
  await flushPromises();
  return mounted;
}

describe('placing by a picture', () => {
  it('begins with two crosses where the card’s place in the machine is not known', async () => {
    const { page } = await picture({});
    expect(page.find(by('cross-0-x')).exists()).toBe(true);
    expect(page.find(by('cross-program')).attributes('disabled')).toBeDefined();
    expect(page.find(by('keep-zero')).attributes('disabled')).toBeDefined();
    for (const [field, value] of [
      ['cross-power', '20'],
      ['cross-speed', '50'],
    ] as const) {
      await page.find(by(field)).setValue(value);
      await page.find(by(field)).trigger('blur');
    }
    await flushPromises();
    expect(page.find(by('cross-program')).attributes('disabled')).toBeUndefined();
  });

  it('says how good what was learnt is, and to look again once the head was changed', async () => {
    const { page } = await picture({ cardZero: ZERO });
    expect(page.text()).toMatch(/good to\s+0\.12/);
    expect(page.find(by('zero-stale')).exists()).toBe(false);
    const after = await picture({ cardZero: ZERO, fitting: FITTED });
    expect(after.page.find(by('zero-stale')).text()).toMatch(/The head was changed since/);
    await after.page.find(by('learn-again')).trigger('click');
    expect(after.page.find(by('cross-0-x')).exists()).toBe(true);
  });
});

describe('where pieces lie', () => {
  const LAID = {
    ...ZERO,
    ...{ kind: 'laid', result: { xMm: 20, yMm: 10, widthMm: 70, heightMm: 88 } },
    entries: {
      ...{ fileHash: 'h', pieceWidthMm: 38, pieceHeightMm: 22 },
      pieces: [
        { xMm: 20, yMm: 10, turnDeg: 0 },
        { xMm: 90, yMm: 60, turnDeg: 90 },
      ],
    },
  };
  const STATE = { typed: ref({ xMm: 2, yMm: 3, turnDeg: 0 }), drawing: ref(null) };
  it('is drawn as a picture showed them; not where pieces are laid in one by one', async () => {
    const props = { state: STATE };
    const laid = await mountOnTicket(JigPlaces, {
      ticket: TICKET,
      items: ITEMS,
      props,
      page: { placeReadings: [LAID] },
    });
    expect(laid.page.findAll('[data-test-id="jig-places"] rect')).toHaveLength(2);
    expect(laid.page.text()).toMatch(/2 at a time on .* where a picture showed them/);
    expect(laid.page.html()).toMatch(/rotate\(-90\)/);
    const alone = await mountOnTicket(JigPlaces, { ticket: TICKET, items: ITEMS, props });
    expect(alone.page.find(by('jig-places')).exists()).toBe(false);
  });
});
