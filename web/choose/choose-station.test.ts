// @vitest-environment happy-dom
import { flushPromises } from '@vue/test-utils';
import { CRITERIA, type Criterion } from '@unto/core';
import type { ChoiceOptionView, ChoicePage } from '@unto/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import ChooseStation from './ChooseStation.vue';
import { useEvidence } from '../evidence/evidence';
import { useNotices } from '../stores/notices';
import { useTicketChange } from '../stores/ticket-change';
import { by, EVEN, item, choose } from '../testing/shop';
import { middlingOption } from '../testing/options';
import { mountOnTicket } from '../testing/ticket';

afterEach(() => vi.unstubAllGlobals());

const TICKET = {
  id: 'ticket',
  number: 7,
  version: 3,
  title: 'Trail markers',
  pieces: 30,
  markWidthMm: 60,
  markHeightMm: 40,
  coatMarginMm: 3,
  substrateId: 'enamel',
  headId: 'co2',
  lensId: 'lens',
  compoundId: null,
  choiceReason: '',
  aim: { tone: 'dark on light', strength: 'clear', work: 'fill' },
  foodUse: false,
};

function option(
  id: string,
  change: Partial<Record<Criterion, number | null>> = {},
  rest: Partial<ChoiceOptionView> = {},
): ChoiceOptionView {
  return {
    ...middlingOption(id, change),
    method: 'universal',
    compoundId: id,
    about: 'universal, black',
    judgement: { verdict: 'offered', reasons: [] },
    coupons: 1,
    runs: 12,
    runsNear: 0,
    gramsPerPiece: 0.5,
    offLabel: false,
    ...rest,
  };
}

const blocked = option(
  'Corvid Film',
  {},
  {
    judgement: {
      verdict: 'blocked',
      reasons: [
        {
          code: 'metal-only',
          hard: true,
          text: 'A metal compound, never proved on enamel here.',
          grade: 'usual',
          favourable: false,
        },
      ],
    },
  },
);

function choicePage(options: readonly ChoiceOptionView[]): ChoicePage {
  return {
    seed: 17,
    modelVersion: 1,
    options,
    methods: [],
    yearlyUse: {},
    stock: { Dark: 500, Quick: 3 },
    blank: null,
    choices: [],
  };
}

const SIZES = [{ label: 'jar', netG: 500, priceMinor: 9000 }];
const ITEMS = [
  item('substrate', 'enamel', { family: 'vitreous enamel', layer: 'bare' }),
  item('machine', 'machine', {}),
  item('head', 'co2', { machineId: 'machine', wavelengthClass: 'co2', eyewear: 'the clear pair' }),
  item('lens', 'lens', { headId: 'co2' }),
  item('compound', 'Dark', { handling: 'rubs off', shelfLifeDays: 7, sizes: SIZES }),
  item('compound', 'Quick', { handling: 'can be touched', shelfLifeDays: 20, sizes: SIZES }),
  item('profile', 'everyday', { name: 'everyday', ...EVEN, contrast: 5, rate: 5 }),
  item('profile', 'rush', { name: 'rush', ...EVEN, rate: 10, contrast: 0 }),
];

async function open(
  options: readonly ChoiceOptionView[] = [option('Dark', { contrast: 4.6 }), option('Quick', { rate: 24 }), blocked],
) {
  return mountOnTicket(ChooseStation, {
    ticket: TICKET,
    items: ITEMS,
    answers: {
      '/api/tickets/ticket/choice': choicePage(options),
      'POST /api/tickets/ticket/choices': { ...TICKET, version: 4 },
    },
  });
}

const names = (page: { findAll: (selector: string) => { text: () => string }[] }) =>
  page.findAll('tbody th strong').map((entry) => entry.text());

describe('the Choose station', () => {
  it('lists what is offered by score, the winner by word, the withheld with their reasons', async () => {
    const { page } = await open();
    expect(names(page)).toEqual(['Dark', 'Quick']);
    expect(page.find(by('option-Dark')).text()).toMatch(/first/);
    expect(page.find(by('verdict')).text()).toBe('Dark, because its contrast is stronger');
    expect(page.find(by('withheld')).text()).toMatch(/Withheld:\s*Corvid Film/);
    expect(page.find(by('withheld-Corvid Film')).text()).toMatch(/never proved on enamel here/);
    expect(page.find(by('take')).text()).toBe('Take Dark');
  });

  it('re-ranks at once when a weight moves, and says whose weights they are', async () => {
    const { page } = await open();
    await page.find(by('weight-contrast')).trigger('keydown', { code: 'Home' });
    expect(names(page)).toEqual(['Quick', 'Dark']);
    expect(page.find(by('profile')).text()).toBe('your own');
    await choose(page, 'profile', 'everyday');
    expect(names(page)).toEqual(['Dark', 'Quick']);
    await choose(page, 'profile', 'rush');
    expect(names(page)[0]).toBe('Quick');
  });

  it('says so when nothing counts, and shows the softer criteria on request', async () => {
    const { page } = await open();
    expect(page.find(by('weight-help')).exists()).toBe(true);
    await choose(page, 'profile', 'everyday');
    for (const criterion of CRITERIA) {
      const slider = page.find(by(`weight-${criterion}`));
      if (slider.exists()) await slider.trigger('keydown', { code: 'Home' });
    }
    expect(page.text()).toMatch(/Nothing counts: move at least one weight above 0/);
    await page.find(by('softer')).trigger('click');
    expect(page.find(by('weight-trackRecord')).exists()).toBe(true);
  });

  it('opens the evidence of a number and of a score', async () => {
    const { page } = await open();
    await page.find(`${by('option-Dark')} td button`).trigger('click');
    expect(useEvidence().open).toMatchObject({ title: 'Dark: contrast', figure: { value: 4.6, grade: 'proved' } });
    await page.find(`${by('option-Dark')} .score button`).trigger('click');
    expect(useEvidence().open!.figure).toMatchObject({ formula: 'rankOptions', unit: 'of 100' });
    expect(useEvidence().open!.figure.inputs).toHaveLength(CRITERIA.length);
  });

  it('shows a missing number as what would fill it, and asks for the coupon first', async () => {
    const { page } = await open([
      option('Dark', { contrast: 4.6 }),
      option('New', { contrast: null }, { coupons: 0, runs: 0 }),
    ]);
    expect(page.find(by('option-New')).text()).toMatch(/never marked here[\s\S]*coupon needed/);
    await page.find(`${by('option-New')} input`).setValue();
    expect(page.find(by('todo')).text()).toMatch(/Prove it first: no scrubbed coupon of New/);
  });

  it('says how much more than the shelf holds is needed', async () => {
    const { page } = await open();
    await page.find(`${by('option-Quick')} input`).setValue();
    // 30 pieces at half a gram, three on the shelf.
    expect(page.find(by('todo')).text()).toMatch(/12\sg more than the shelf holds are needed for 30 pieces/);
  });

  it('takes the first without a word and another only with a reason', async () => {
    const { page, server, router } = await open();
    await page.find(`${by('option-Quick')} input`).setValue();
    await page.find(by('take')).trigger('click');
    expect(page.text()).toMatch(/Say why Quick and not Dark/);
    expect(server.posts()).toEqual([]);
    await page.find(`${by('option-Dark')} input`).setValue();
    await page.find(by('take')).trigger('click');
    await flushPromises();
    expect(server.posts()).toHaveLength(1);
    expect(server.posts()[0]).toMatchObject({
      path: '/api/tickets/ticket/choices',
      body: { version: 3, optionId: 'Dark', profileId: 'everyday', weights: { contrast: 5 }, reason: '' },
    });
    expect(router.currentRoute.value.path).toBe('/tickets/ticket/prepare');
    expect(useNotices().notice!.text).toBe('Taken: Dark.');
  });

  it('sends an off-label choice to its proof', async () => {
    const doubtful = option(
      'Dark',
      { contrast: 5 },
      {
        offLabel: true,
        judgement: {
          verdict: 'warned',
          reasons: [
            {
              code: 'beam-off-label',
              hard: false,
              text: 'Off its label: prove it first.',
              grade: 'stated',
              favourable: false,
            },
          ],
        },
      },
    );
    const { page, router } = await open([doubtful, option('Quick')]);
    expect(page.find(by('option-Dark')).text()).toMatch(/off its label/);
    expect(page.find(by('todo')).text()).toMatch(/Off its label: prove it first/);
    await page.find(by('take')).trigger('click');
    await flushPromises();
    expect(router.currentRoute.value.path).toBe('/tickets/ticket/prove');
  });

  it('offers both versions when somebody was quicker, and puts ours over theirs on request', async () => {
    const { page, server } = await open();
    const theirs = { ...TICKET, version: 9, note: 'theirs' };
    server.refusals['POST /api/tickets/ticket/choices'] = {
      type: 'version-conflict',
      title: '',
      status: 409,
      detail: 'changed',
      current: theirs,
    };
    await page.find(by('take')).trigger('click');
    await flushPromises();
    const change = useTicketChange();
    expect(change.conflict).toMatchObject({ mine: { compoundId: 'Dark' }, theirs: { version: 9 } });
    delete server.refusals['POST /api/tickets/ticket/choices'];
    await change.resolve('mine');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({ version: 9, optionId: 'Dark' });
  });

  it('says the refusal of the server in its own words', async () => {
    const { page, server } = await open();
    server.refusals['POST /api/tickets/ticket/choices'] = {
      type: 'invalid-input',
      title: '',
      status: 422,
      detail: 'no',
      faults: [{ path: 'optionId', message: 'Dark is withheld: holds PTFE.' }],
    };
    await page.find(by('take')).trigger('click');
    await flushPromises();
    expect(useNotices().notice).toMatchObject({ text: 'Dark is withheld: holds PTFE.', tone: 'danger' });
  });

  it('keeps weights of one’s own under a name', async () => {
    const { page, server } = await open();
    server.answers['POST /api/inventory'] = item('profile', 'new');
    await page.find(by('weight-rate')).trigger('keydown', { code: 'End' });
    await page.find(by('weight-rate')).trigger('keydown', { code: 'ArrowLeft' });
    await page.find(by('name-profile')).trigger('click');
    await page.find(by('profile-name')).setValue('my own');
    await page.find('form.naming').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]!.body).toMatchObject({
      kind: 'profile',
      body: { name: 'my own', rate: 9.5, contrast: 5 },
    });
  });
});
