import { USUAL_TRANSFERS, WAVELENGTH_CLASSES, type Application } from '@unto/core';
import { INVENTORY_BODIES, INVENTORY_LINKS, type InventoryItem } from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { coatPlanFor } from '../coat/index.js';
import { bodyOfKind, SHELF_KINDS, usualBody, usualFields, type KindedItem } from './kinds.js';
import { gradeOf, usualFactor } from './usual-factors.js';

const ID = '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0001';
const KINDED = Object.keys(SHELF_KINDS) as KindedItem[];
const ALL = KINDED.flatMap((kind) => SHELF_KINDS[kind].map(({ key }) => ({ kind, key })));

describe('kinds that ship', () => {
  it.each(ALL)('$kind $key is whole once it is named', ({ kind, key }) => {
    const link = INVENTORY_LINKS[kind];
    const body = bodyOfKind(kind, key, { name: 'Mine', ...(link ? { [link.field]: ID } : {}) } as never);
    expect(() => INVENTORY_BODIES[kind].validateSync(body, { strict: true })).not.toThrow();
    expect(body.usual.length).toBeGreaterThan(0);
    expect(usualFields(kind, key)).toEqual(body.usual);
  });

  it('have keys of their own, and say no maker and no product', () => {
    for (const kind of KINDED) {
      const kinds = SHELF_KINDS[kind];
      expect(new Set(kinds.map(({ key }) => key)).size).toBe(kinds.length);
      expect(kinds.every(({ name, about }) => name && about)).toBe(true);
    }
    expect(new Set(SHELF_KINDS.head.map(({ body }) => body.wavelengthClass))).toEqual(new Set(WAVELENGTH_CLASSES));
  });

  it('hold what somebody says, and call the rest usual', () => {
    const head = bodyOfKind('head', 'co2-55', { name: 'Mine', machineId: ID, ratedW: 60 });
    expect(head).toMatchObject({ ratedW: 60, ofKind: 'co2-55', wavelengthNm: 10_600 });
    expect([gradeOf('head', head, 'ratedW'), gradeOf('head', head, 'm2')]).toEqual(['stated', 'usual']);
    expect(usualFactor('head', head, 'm2')).toBeGreaterThan(1);
    expect(usualBody('head', 'of no kind')).toBeNull();
    expect(usualBody('profile', 'co2-55')).toBeNull();
    expect(() => bodyOfKind('head', 'of no kind', { name: 'Mine' })).toThrow(/no head/);
  });
});

/** Common practice, no source. */
describe('what is usual in the trade', () => {
  const compounds = SHELF_KINDS.compound;
  const aerosols = compounds.filter(({ body }) => body.application === 'aerosol');

  it('shakes 60 to 90 s and sprays from 150 to 300 mm', () => {
    for (const { body } of aerosols) {
      expect(body.shakeS).toBeGreaterThanOrEqual(60);
      expect(body.shakeS).toBeLessThanOrEqual(90);
      expect([body.distanceMinMm, body.distanceMaxMm]).toEqual([150, 300]);
    }
  });

  it('dries aerosols for metal in 3 to 7 minutes', () => {
    for (const { body } of aerosols.filter(({ body }) => body.form.startsWith('metal')))
      expect(body.dryS >= 180 && body.dryS <= 420).toBe(true);
  });

  it('lays glass compounds three wet mils thick: 76 µm', () => {
    const { body } = compounds.find(({ key }) => key === 'glass-jar')!;
    expect(76.2 * body.volumeSolids).toBeGreaterThan(body.dryFilmMinUm);
    expect(76.2 * body.volumeSolids).toBeLessThan(body.dryFilmMaxUm);
  });

  /** A square inch of the part costs 1 to 7 cents: the lubricant about 1, compounds for metal 3 to 7. */
  it.each([
    ['lubricant-molybdenum', 0.7, 1.6],
    ['film-aerosol', 3, 7],
    ['powder-aerosol', 3, 7],
    ['universal-aerosol', 3, 7],
  ])('%s costs %d to %d cents on a square inch', (key, low, high) => {
    const body = bodyOfKind('compound', key, { name: 'Mine' });
    const item = { id: ID, revision: 1, body } as InventoryItem<'compound'>;
    const inch = { markWidthMm: 25.4, markHeightMm: 25.4, coatMarginMm: 0 };
    const { pricePerPiece } = coatPlanFor(item, inch, 1, USUAL_TRANSFERS[body.application as Application]);
    expect(100 * pricePerPiece.value).toBeGreaterThan(low);
    expect(100 * pricePerPiece.value).toBeLessThan(high);
    expect(pricePerPiece.grade).toBe('usual');
    // Nobody has weighed anything: the true price may be more than half as much again, or less.
    expect(pricePerPiece.interval!.high / pricePerPiece.value).toBeGreaterThan(1.6);
  });

  it('withholds PTFE by itself', () => {
    expect(compounds.filter(({ body }) => body.containsPtfe).map(({ key }) => key)).toEqual(['lubricant-ptfe']);
  });

  it('small infrared heads have under a millimetre of focus either way', () => {
    for (const { key, body } of SHELF_KINDS.lens.filter(({ key }) => key.startsWith('infrared')))
      expect([key, body.depthOfFocusMm < 1]).toEqual([key, true]);
  });
});
