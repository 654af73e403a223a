import { CRITERIA } from '@unto/core';
import { describe, expect, it } from 'vitest';
import {
  createChoice,
  createIdentification,
  emptyBody,
  LATER_FIELDS,
  NO_KIND,
  shelfFields,
  INVENTORY_BODIES,
  INVENTORY_KINDS,
  INVENTORY_LINKS,
  type InventoryKind,
} from '../index.js';

const ID = '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0001';
const GOOD: Partial<Record<InventoryKind, Record<string, unknown>>> = {
  substrate: {
    ...LATER_FIELDS.substrate,
    name: '304',
    family: 'stainless',
    layer: 'bare',
    finish: '2B',
    thicknessMm: 1.2,
    conductivity: 0.0162,
    diffusivity: 4.05,
    thermalSource: 'handbook',
    curvature: '',
  },
  compound: {
    ...LATER_FIELDS.compound,
    name: 'Corvid Film',
    form: 'metal film-forming',
    colour: 'black',
    statedBeams: ['co2'],
    statedFamilies: ['stainless'],
    containsPtfe: false,
    solventBased: true,
    handling: 'can be touched',
    dryFilmMinUm: 8,
    dryFilmMaxUm: 12,
    coats: 1,
    distanceMinMm: 150,
    distanceMaxMm: 250,
    shakeS: 75,
    dryS: 240,
    shelfLifeDays: null,
    volumeSolids: 0.3,
    massSolids: 0.12,
    dryDensity: 3.6,
    thinnerRatio: 0,
    thinnerDensityRatio: 0.9,
    cleaning: 'water',
    hazards: '',
    sizes: [{ label: 'can', netG: 420, priceMinor: 6800 }],
  },
  blank: {
    ...NO_KIND,
    name: 'Tags',
    substrateId: null,
    supplier: 'Hollin',
    grade: '',
    lot: '',
    priceMinor: 62,
    widthMm: 44,
    heightMm: 28,
    thicknessMm: 1.2,
    left: 40,
    note: '',
  },
  profile: { name: 'rush', about: '', ...Object.fromEntries(CRITERIA.map((criterion) => [criterion, 5])) },
};
function faults(schema: { validateSync: (value: unknown, options: object) => unknown }, value: unknown): string {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false });
    return '';
  } catch (error) {
    return (error as { errors: string[] }).errors.join('\n');
  }
}
const refuse = (kind: InventoryKind, change: object) => faults(INVENTORY_BODIES[kind], { ...GOOD[kind], ...change });

describe('what a shop keeps', () => {
  it.each(Object.keys(GOOD) as InventoryKind[])('%s is taken whole', (kind) => expect(refuse(kind, {})).toBe(''));

  it.each<[InventoryKind, object, RegExp]>([
    ['compound', { dryFilmMinUm: 12, dryFilmMaxUm: 8 }, /coat band must rise/],
    ['compound', { dryS: 0 }, /Dry by itself must be above 0/],
    ['compound', { volumeSolids: 1.2 }, /Solids by volume, wet film must be at most 1/],
    ['compound', { sizes: [] }, /at least one container size/],
    ['compound', { sizes: [{ label: 'can', netG: 0, priceMinor: 1 }] }, /Net contents must be above 0/],
    ['compound', { availability: 11 }, /must be at most 10/],
    ['compound', { trackRecord: -1 }, /cannot be negative/],
    ['compound', { potLifeHours: -2 }, /cannot be negative/],
    ['compound', { dataSheet: { hash: 'short', name: 'x.pdf' } }, /names no kept file/],
    ['compound', { marks: 'purple' }, /must be one of: dark, light/],
    ['compound', { statedBeams: ['candle'] }, /must be one of/],
    ['substrate', { gaugeNumber: 24 }, /until the metal is named/],
    ['substrate', { gaugeNumber: 99, gaugeMetal: 'steel' }, /no gauge 99/],
    ['substrate', { gaugeNumber: 24, gaugeMetal: 'steel', thicknessMm: 0.7 }, /is 0\.607 mm; the thickness says 0\.7/],
    ['substrate', { gaugeMetal: 'cheese' }, /must be one of/],
    ['substrate', { thicknessMm: -1 }, /Thickness must be above 0/],
    ['substrate', { surprise: 1 }, /unspecified|unknown/i],
    ['blank', { supplier: '' }, /Supplier is missing/],
    ['blank', { left: 2.5 }, /whole number/],
    ['blank', { widthMm: 0 }, /Measured width must be above 0/],
    ['profile', { contrast: 11 }, /Contrast must be at most 10/],
    ['profile', { cost: Number.NaN }, /Price a piece must be a number/],
  ])('%s refuses %j', (kind, change, message) => expect(refuse(kind, change)).toMatch(message));

  it('takes a gauge whose thickness was rounded in the workshop', () => {
    expect(refuse('substrate', { gaugeNumber: 24, gaugeMetal: 'stainless', thicknessMm: 0.64 })).toBe('');
    expect(refuse('substrate', { gaugeNumber: 20, gaugeMetal: 'brass', thicknessMm: 0.8128 })).toBe('');
  });

  it('names links among its own kinds, and later fields among its own fields', () => {
    for (const [kind, { field, kind: to }] of Object.entries(INVENTORY_LINKS)) {
      expect(INVENTORY_KINDS).toContain(to);
      expect(shelfFields(kind as InventoryKind).map(({ key }) => key)).toContain(field);
    }
    for (const [kind, fields] of Object.entries(LATER_FIELDS))
      for (const key of Object.keys(fields))
        expect(Object.keys(INVENTORY_BODIES[kind as InventoryKind].fields)).toContain(key);
  });

  it('takes what a later field meant as it stands', () => {
    for (const kind of ['compound', 'substrate'] as const) {
      expect(Object.keys(LATER_FIELDS[kind]!).length).toBeGreaterThan(4);
      expect(refuse(kind, LATER_FIELDS[kind]!)).toBe('');
    }
  });

  it('begins a new item with every field, and refuses it as long as it is empty', () => {
    for (const kind of INVENTORY_KINDS) {
      const body = emptyBody(kind);
      expect(Object.keys(body)).toEqual(Object.keys(INVENTORY_BODIES[kind].fields));
      expect(faults(INVENTORY_BODIES[kind], body)).not.toBe('');
    }
  });
});

describe('a choice and an identification', () => {
  const choice = {
    id: ID,
    version: 1,
    optionId: ID,
    profileId: null,
    weights: Object.fromEntries(CRITERIA.map((criterion) => [criterion, 5])),
    reason: '',
  };
  const identification = {
    id: ID,
    label: 'Strip',
    ticketId: null,
    blankId: null,
    words: { magnet: 'pulls weakly' },
    weighed: null,
    guessKey: 'stainless-304',
    substrateId: null,
  };

  it('are taken whole', () => {
    expect(faults(createChoice, choice)).toBe('');
    expect(faults(createIdentification, identification)).toBe('');
    expect(faults(createIdentification, { ...identification, words: {} })).toBe('');
  });

  it.each([
    [{ optionId: '' }, /Choose an option/],
    [{ weights: { ...choice.weights, rate: -1 } }, /Fast must be at least 0/],
    [{ weights: { contrast: 5 } }, /is missing/],
    [{ version: 0 }, /at least 1/],
    [{ profileId: 'x' }, /UUID/],
  ])('choice refuses %j', (change, message) => expect(faults(createChoice, { ...choice, ...change })).toMatch(message));

  it.each([
    [{ label: ' ' }, /What is looked at is missing/],
    [{ guessKey: 'cheese' }, /Taken to be must be one of/],
    [{ words: { magnet: 'sings' } }, /Magnet must be one of/],
    [{ words: { taste: 'sweet' } }, /unspecified|unknown/i],
    [
      {
        weighed: {
          mass: { value: -1, unit: 'g' },
          by: 'water',
          lengthMm: null,
          widthMm: null,
          thicknessMm: null,
          displacedMl: 3,
        },
      },
      /cannot be negative/,
    ],
    [
      {
        weighed: {
          mass: { value: 3, unit: 'stone' },
          by: 'water',
          lengthMm: null,
          widthMm: null,
          thicknessMm: null,
          displacedMl: 3,
        },
      },
      /must be one of: g, oz/,
    ],
  ])('identification refuses %j', (change, message) =>
    expect(faults(createIdentification, { ...identification, ...change })).toMatch(message),
  );
});
