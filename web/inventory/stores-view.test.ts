// @vitest-environment happy-dom
import { flushPromises, type VueWrapper } from '@vue/test-utils';
import { decisive, makeFigure } from '@unto/core';
import { emptyBody, LATER_FIELDS, type InventoryItem } from '@unto/contract';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useMakeItem } from '../stores/make-item';
import { useNotices } from '../stores/notices';
import { by, choose, EVEN, fakeServer, item, mountInShop } from '../testing/shop';
import InventoryView from './InventoryView.vue';

afterEach(() => vi.unstubAllGlobals());

const compound = (id: string, change: object = {}) =>
  item('compound', id, {
    ...emptyBody('compound'),
    ...LATER_FIELDS.compound,
    ...{ form: 'metal film-forming', handling: 'can be touched', name: id },
    statedBeams: ['co2'],
    statedFamilies: ['stainless'],
    colour: 'black',
    dryFilmMinUm: 8,
    dryFilmMaxUm: 12,
    coats: 1,
    distanceMinMm: 150,
    distanceMaxMm: 250,
    shakeS: 60,
    dryS: 240,
    volumeSolids: 0.3,
    massSolids: 0.12,
    dryDensity: 3.6,
    thinnerRatio: 0,
    thinnerDensityRatio: 0.9,
    thinnerMinorPerL: 0,
    cleaning: 'water',
    sizes: [{ label: 'can', netG: 420, priceMinor: 6800 }],
    ...change,
  });
const CORVID = '00000000-0000-4000-8000-000000000001';
const ITEMS: InventoryItem[] = [
  { ...compound('Corvid'), id: CORVID },
  { ...compound('Old stuff'), retired: true },
  item('container', 'K7', {
    compoundId: CORVID,
    lot: 'K7',
    openedOn: null,
    expiresOn: null,
    tareG: 96,
    netG: 420,
    priceMinor: 6800,
  }),
  item('blank', 'mystery', { name: 'Mystery box', substrateId: null, supplier: 'found' }),
  item('profile', 'everyday', { name: 'everyday', about: '', ...EVEN }),
];
const USE = { tickets: 1, coupons: 2, runs: 0, weighings: 3, left: null };

async function open(path = '/stores', answers: Record<string, unknown> = {}) {
  const id = /\/stores\/([\w-]+)/.exec(path)?.[1];
  const server = fakeServer({
    '/api/workshop': {},
    [`/api/inventory/${id}/use`]: USE,
    [`/api/inventory/${id}/revisions`]: [],
    ...answers,
  });
  const mounted = await mountInShop(InventoryView, { items: ITEMS, path, props: id ? { id } : {} });
  return { ...mounted, server };
}
const entries = (page: VueWrapper) => page.findAll('a.entry').map((entry) => entry.text());
const type = async (page: VueWrapper, id: string, text: string) => {
  const field = page.find(by(id));
  await field.setValue(text);
  await field.trigger('blur');
};

describe('the shelf', () => {
  it('opens one kind at a time, finds by name over all, and hides what is retired', async () => {
    const { page } = await open();
    expect(entries(page)).toEqual(['Corvid']);
    await page.find(by('kind-blank')).trigger('click');
    expect(entries(page)).toEqual(['Mystery box']);
    await page.find('input[type="search"]').setValue('k');
    expect(entries(page)).toEqual(['K7']);
    await page.find('input[type="search"]').setValue('');
    await page.find(by('kind-compound')).trigger('click');
    await page.find('input[type="checkbox"]').setValue(true);
    expect(entries(page)).toEqual(['Corvid', 'Old stuff, retired']);
  });

  it('opens the kind its address asks for, and a new item with what is known filled in', async () => {
    expect(entries((await open('/stores?kind=profile')).page)).toEqual(['everyday']);
    const { page } = await open('/stores?add=substrate&family=brass&layer=lacquered');
    expect(page.text()).toMatch(/New substrate/);
    expect(page.find(by('shelf-family')).text()).toBe('brass');
    expect(page.find(by('shelf-layer')).text()).toBe('lacquered');
  });
});

describe('an item', () => {
  it('says what rests on it, and what a container still holds', async () => {
    expect((await open(`/stores/${CORVID}`)).page.find(by('rests')).text()).toMatch(
      /^1 ticket, 2 coupons, 3 weighings rest on it\.\s*It can be retired, never deleted\.$/,
    );
    const left = {
      grams: makeFigure({
        formula: 'remainingGrams',
        value: 205.6,
        unit: 'g',
        inputs: [decisive('weighing', 'measured')],
      }),
      pieces: makeFigure({
        formula: 'remainingPieces',
        value: 190,
        unit: 'pieces',
        inputs: [decisive('weighing', 'measured')],
      }),
      weighedAt: '2026-03-01T09:00:00.000Z',
    };
    const { page } = await open('/stores/K7', { '/api/inventory/K7/use': { ...USE, left } });
    expect(page.find(by('left-grams')).text()).toMatch(/206g[\s\S]*Measured/);
    expect(page.find(by('left-pieces')).text()).toMatch(/190pieces/);
    expect(page.text()).toMatch(/Corvid/);
  });

  it('sends a blank that nobody knows to its identification', async () => {
    const { page } = await open('/stores/mystery');
    expect(page.find(by('identify')).attributes('href')).toBe('/identify?blank=mystery');
  });

  it('is retired with undo', async () => {
    const { page, server } = await open(`/stores/${CORVID}`, {
      [`PUT /api/inventory/${CORVID}/retired`]: item('compound', CORVID, { name: 'Corvid Film' }),
    });
    await page.find(by('retire')).trigger('click');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: `/api/inventory/${CORVID}/retired`,
      body: { version: 1, retired: true },
    });
    expect(useNotices().notice!.text).toMatch(/Retired; records that used it keep it/);
    useNotices().notice!.undo!();
    await flushPromises();
    expect(server.posts()[1]!.body).toMatchObject({ retired: false });
  });
});

describe('the form', () => {
  it('names each fault at its field once it was left, and sends nothing', async () => {
    const { page, server } = await open();
    await page.find(by('add-compound')).trigger('click');
    await type(page, 'shelf-dryFilmMinUm', '14');
    await type(page, 'shelf-dryFilmMaxUm', '9');
    await type(page, 'shelf-dryS', '0');
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/The coat band must rise/);
    expect(page.text()).toMatch(/Dry by itself must be above 0/);
    expect(page.text()).toMatch(/Name is missing/);
    expect(page.text()).toMatch(/at least one container size/);
    expect(server.posts()).toEqual([]);
  });

  it('takes money in major units and keeps it in minor ones', async () => {
    const { page, server } = await open('/stores/K7', {
      'PUT /api/inventory/K7': { ...ITEMS[2], version: 2, revision: 2 },
      '/api/inventory?retired=1': ITEMS,
    });
    await page.find(by('revise')).trigger('click');
    expect((page.find(by('shelf-priceMinor')).element as HTMLInputElement).value).toBe('68');
    await type(page, 'shelf-priceMinor', '71,50');
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({ method: 'PUT', body: { version: 1, body: { priceMinor: 7150 } } });
  });

  it('offers an edit to be taken back', async () => {
    const { page, server } = await open('/stores/K7', {
      'PUT /api/inventory/K7': { ...ITEMS[2], version: 2, revision: 2 },
      '/api/inventory?retired=1': ITEMS,
    });
    await page.find(by('revise')).trigger('click');
    await type(page, 'shelf-lot', 'K8');
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    useNotices().notice!.undo!();
    await flushPromises();
    expect(server.posts()[1]).toMatchObject({ body: { version: 2, body: { lot: 'K7' } } });
  });

  it('copies an item under a new name', async () => {
    const { page, server } = await open(`/stores/${CORVID}`, {
      '/api/inventory?retired=1': ITEMS,
      'POST /api/inventory': ITEMS[0],
    });
    await page.find(by('duplicate')).trigger('click');
    expect((page.find(by('shelf-name')).element as HTMLInputElement).value).toBe('Corvid, copy');
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    expect(server.posts()[0]).toMatchObject({
      path: '/api/inventory',
      body: { kind: 'compound', body: { name: 'Corvid, copy', dryFilmMinUm: 8 } },
    });
    expect(server.posts()[0]!.body.id).not.toBe(CORVID);
  });

  it('puts the refusal of the server at its field', async () => {
    const { page, server } = await open('/stores/K7');
    server.refusals['PUT /api/inventory/K7'] = {
      type: 'invalid-input',
      title: '',
      status: 422,
      detail: 'no',
      faults: [{ path: 'lot', message: 'That lot is another one’s.' }],
    };
    await page.find(by('revise')).trigger('click');
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/That lot is another one’s/);
  });

  it('keeps what was typed when somebody was quicker, and puts it over theirs on request', async () => {
    const { page, server } = await open('/stores/K7', { '/api/inventory?retired=1': ITEMS });
    const theirs = { ...ITEMS[2], version: 5, revision: 5 };
    server.refusals['PUT /api/inventory/K7'] = {
      type: 'version-conflict',
      title: '',
      status: 409,
      detail: 'no',
      current: theirs,
    };
    await page.find(by('revise')).trigger('click');
    await type(page, 'shelf-lot', 'K9');
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    expect(page.text()).toMatch(/Somebody else made revision 5 meanwhile/);
    delete server.refusals['PUT /api/inventory/K7'];
    server.answers['PUT /api/inventory/K7'] = { ...theirs, version: 6 };
    await page.findAll('.clash button')[1]!.trigger('click');
    await flushPromises();
    expect(server.posts().at(-1)!.body).toMatchObject({ version: 5, body: { lot: 'K9' } });
  });

  it('says what is missing before a spot can be worked out', async () => {
    const { page } = await open();
    await page.find(by('add-lens')).trigger('click');
    expect(page.find(by('work-out-spot')).attributes('disabled')).toBeDefined();
    expect(page.find('.said').text()).toBe('Choose the head first.');
    await page.find(by('add-substrate')).trigger('click');
    await page.find(by('from-gauge')).trigger('click');
    expect(page.find('.said').text()).toBe('Enter the gauge first.');
    await type(page, 'shelf-gaugeNumber', '24');
    await page.find(by('from-gauge')).trigger('click');
    expect(page.find('.said').text()).toMatch(/until the metal is named/);
  });
});

describe('a new item of a kind', () => {
  const shows = (page: VueWrapper, key: string) => page.find(by(`usual-${key}`)).exists();

  it('opens on a few fields, is filled in with what is usual, and kept with what nobody said named', async () => {
    const { page, server } = await open('/stores', { 'POST /api/inventory': compound('Brindle') });
    await page.find(by('add-compound')).trigger('click');
    await choose(page, 'of-kind', 'powder-aerosol');
    expect((page.find(by('more')).element as HTMLDetailsElement).open).toBe(false);
    await type(page, 'shelf-name', 'Brindle');
    expect(shows(page, 'massSolids')).toBe(true);
    expect((page.find(by('shelf-massSolids')).element as HTMLInputElement).value).toBe('12');
    // Somebody says better; another is said to be so; a third is emptied again.
    await type(page, 'shelf-massSolids', '0.15');
    expect(shows(page, 'massSolids')).toBe(false);
    await page.find(by('so-dryDensity')).trigger('click');
    await type(page, 'shelf-dryS', '240');
    await type(page, 'shelf-dryS', '');
    expect((page.find(by('shelf-dryS')).element as HTMLInputElement).value).toBe('300');
    expect(shows(page, 'dryS')).toBe(true);
    await page.find('form.shelf').trigger('submit');
    await flushPromises();
    const { body } = server.posts().at(-1)!.body as { body: { usual: string[] } };
    expect(body).toMatchObject({ ofKind: 'powder-aerosol', massSolids: 0.15, dryDensity: 2.9, dryS: 300 });
    expect(body.usual).toEqual(expect.arrayContaining(['dryS', 'volumeSolids', 'handling']));
    expect(body.usual).toEqual(expect.not.arrayContaining(['massSolids', 'dryDensity', 'name']));
  });

  it('keeps what was said when another kind is taken', async () => {
    const { page } = await open();
    await page.find(by('add-compound')).trigger('click');
    await type(page, 'shelf-colour', 'red');
    await choose(page, 'of-kind', 'film-aerosol');
    await choose(page, 'of-kind', 'glass-jar');
    expect((page.find(by('shelf-colour')).element as HTMLInputElement).value).toBe('red');
    expect((page.find(by('shelf-dryDensity')).element as HTMLInputElement).value).toBe('2.4');
  });

  it('is made in place of what another form misses, and chosen there', async () => {
    const { page } = await open();
    await page.find(by('add-lens')).trigger('click');
    const making = useMakeItem();
    await page.find(by('make-shelf-headId')).trigger('click');
    expect(making.asked.map(({ kind }) => kind)).toEqual(['head']);
    making.done('00000000-0000-4000-8000-00000000000f');
    await flushPromises();
    expect(page.find(by('shelf-headId')).text()).toMatch(/just made, waits to be sent/);
  });
});

describe('a store file brought back', () => {
  const bring = async (page: VueWrapper, name: string, text: string) => {
    const field = page.find(by('stores-import'));
    Object.defineProperty(field.element, 'files', { value: [new File([text], name)], configurable: true });
    await field.trigger('change');
    await flushPromises();
    await new Promise((resolve) => setTimeout(resolve, 0));
    await flushPromises();
  };

  it('is sent with the kind that is open, and its report said', async () => {
    const { page, server } = await open('/stores', {
      'POST /api/inventory/import?format=csv&kind=compound': { created: 2, revised: 1, unchanged: 4, problems: [] },
      '/api/inventory?retired=1': ITEMS,
    });
    await bring(page, 'compounds.csv', 'id,Name\r\n');
    expect(server.posts()[0]!.path).toMatch(/format=csv&kind=compound/);
    expect(useNotices().notice!.text).toBe('2 brought in, 1 revised, 4 here already and unchanged.');
  });

  it('shows each fault by its line and says that nothing was kept', async () => {
    const { page, server } = await open();
    const faults = Array.from({ length: 14 }, (_, i) => ({
      line: i + 2,
      message: `Line ${i + 2}: “ell” does not turn into mm.`,
    }));
    server.refusals['POST /api/inventory/import?format=json'] = {
      type: 'invalid-input',
      title: '',
      status: 422,
      detail: 'no',
      faults,
    };
    await bring(page, 'stores.json', '{}');
    const said = page.find(by('import-faults')).text();
    expect(said).toMatch(/Nothing was brought in[\s\S]*Line 2: “ell”/);
    expect(said).toMatch(/and 2 more/);
  });
});
