import { describe, expect, it } from 'vitest';
import type { Schema } from 'yup';
import { PLAIN_SETTING } from '@unto/core';
import {
  CONTRAST_STEPS,
  createJudgement,
  createRun,
  createStatedSetting,
  createWeighing,
  openApiDocument,
  PROBLEMS,
  ROUTES,
  INVENTORY_BODIES,
  INVENTORY_LINKS,
} from './index.js';

const ID = '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0001';
const run = {
  id: ID,
  ticketId: ID,
  recipeId: null,
  correctsId: null,
  pieces: 1,
  power: { value: 90, unit: '%' },
  speed: { value: 150, unit: 'mm/s' },
  interval: { value: 0.06, unit: 'mm' },
  ...PLAIN_SETTING,
  air: 'off',
  minutes: 2,
  note: '',
  reason: '',
};

function faults(schema: Schema, value: unknown): Record<string, string> {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false });
    return {};
  } catch (error) {
    return Object.fromEntries(
      (error as { inner: { path: string; message: string }[] }).inner.map(({ path, message }) => [path, message]),
    );
  }
}

describe('requests', () => {
  it('take a whole run', () => expect(faults(createRun, run)).toEqual({}));

  it.each([
    [{ power: { value: 0, unit: '%' } }, 'power.value', /above 0/],
    [{ power: { value: 100.5, unit: '%' } }, 'power.value', /at most 100/],
    [{ power: { value: 1001, unit: '0-1000' } }, 'power.value', /at most 1000/],
    [{ power: { value: 9, unit: 'hp' } }, 'power.unit', /one of: %, 0-1000, W/],
    [{ speed: { value: Number.NaN, unit: 'mm/s' } }, 'speed.value', /number/],
    [{ interval: { value: -1, unit: 'mm' } }, 'interval.value', /above 0/],
    [{ passes: 1.5 }, 'passes', /whole number/],
    [{ passes: 0 }, 'passes', /at least 1/],
    [{ air: 'maybe' }, 'air', /one of: off, on/],
    [{ id: 'X' }, 'id', /UUID/],
    [{ minutes: '3' }, 'minutes', /number/],
    [{ note: 'n'.repeat(5000) }, 'note', /longer than 4000/],
  ])('refuse %j at its field', (change, path, message) => {
    expect(faults(createRun, { ...run, ...change })[path]).toMatch(message);
  });

  it('refuse what they do not know', () => {
    expect(Object.values(faults(createRun, { ...run, surprise: 1 }))).toHaveLength(1);
  });

  it('take weights of 0, not below', () => {
    const weighing = {
      id: ID,
      containerId: ID,
      pieces: 1,
      before: { value: 0, unit: 'g' },
      after: { value: -1, unit: 'oz' },
      partsBefore: null,
      partsAfter: null,
      correctsId: null,
    };
    expect(faults(createWeighing, weighing)).toEqual({ 'after.value': 'Weight after cannot be negative.' });
  });

  it('let a stated setting leave out what nobody stated', () => {
    const stated = {
      id: ID,
      title: 't',
      family: 'glass',
      wavelengthClass: 'co2',
      compound: '',
      ratedW: null,
      topSpeedMmPerS: null,
      power: null,
      speed: null,
      interval: null,
      ...PLAIN_SETTING,
      source: 's',
      note: '',
    };
    expect(faults(createStatedSetting, stated)).toEqual({});
    expect(faults(createStatedSetting, { ...stated, title: '  ', ratedW: -1 })).toMatchObject({
      title: 'What it marks is missing.',
      ratedW: expect.stringContaining('negative'),
    });
  });

  it('judge contrast on the described steps only', () => {
    const judgement = {
      id: ID,
      contrastStep: 6,
      evenness: 'even',
      piecesGood: 1,
      faults: ['dull'],
      tests: [],
      note: '',
    };
    expect(Object.keys(faults(createJudgement, judgement)).sort()).toEqual(['contrastStep', 'faults[0]']);
    expect(CONTRAST_STEPS.map(({ step }) => step)).toEqual([1, 2, 3, 4, 5]);
  });
});

describe('registries', () => {
  it('have one place for every path and method, and a summary for every route', () => {
    const places = Object.values(ROUTES).map(({ method, path }) => `${method} ${path}`);
    expect(new Set(places).size).toBe(places.length);
    expect(Object.values(ROUTES).every(({ summary }) => summary.length > 5)).toBe(true);
    expect(openApiDocument().components.schemas.Problem.properties.type.enum).toEqual(Object.keys(PROBLEMS));
  });

  it('link store kinds by fields that their schemas have', () => {
    for (const [kind, link] of Object.entries(INVENTORY_LINKS))
      expect(Object.keys(INVENTORY_BODIES[kind as keyof typeof INVENTORY_BODIES].fields)).toContain(link.field);
  });
});
