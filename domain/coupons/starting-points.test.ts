import { PLAIN_SETTING } from '@unto/core';
import type { StatedSetting } from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { bodyOfKind } from '../kinds/index.js';
import { assumedKey, assumedOf, type Assumed } from './stated-points.js';
import { startingPoints, type KnownBefore } from './starting-points.js';

const ID = '0b6a0f0e-6c5c-4d33-9f29-8f3f1a6f0001';
const equipment = {
  head: bodyOfKind('head', 'co2-55', { name: 'Mine', machineId: ID }),
  substrate: bodyOfKind('substrate', '304', { name: 'Steel', layer: 'bare' }),
};
const FILM = { name: 'Corvid Film', form: 'metal film-forming' } as const;
const stated = (change: Partial<StatedSetting> = {}): StatedSetting => ({
  ...PLAIN_SETTING,
  ...{ id: ID, title: 'Tags', family: 'stainless', wavelengthClass: 'co2', compound: 'corvid film' },
  ...{
    ratedW: 40,
    topSpeedMmPerS: null,
    source: 'old note',
    note: '',
    past: null,
    power: null,
    speed: null,
    interval: null,
  },
  ...{ powerPercent: 95, powerW: 38, speedMmPerS: 160, intervalMm: null, doseJPerMm2: null },
  ...{ at: '2026-03-01T09:00:00.000Z', by: ID },
  ...change,
});
const sources = (records: readonly StatedSetting[], compound: typeof FILM | null = FILM) =>
  startingPoints(equipment, compound, { stated: records }).map(({ grade, source }) => `${grade}: ${source}`);

describe('what a first coupon starts from', () => {
  it('is what was stated of this compound, and what is usual', () => {
    expect(sources([stated()])).toEqual(['stated: Tags: old note', 'usual: usual for metal film-forming on stainless']);
    expect(sources([stated({ compound: 'Metal film-forming ' })])).toHaveLength(2);
  });

  it('leaves out what was stated of another compound, material or beam, or whose watts or speed nobody knows, or was lost', () => {
    const others = [
      stated({ compound: 'Soothollow' }),
      stated({ compound: '' }),
      stated({ family: 'brass' }),
      stated({ wavelengthClass: 'blue' }),
      stated({ powerW: null, powerPercent: null }),
      stated({ speedMmPerS: null }),
      stated({ past: { on: '2025-04-03', pieces: 12, minutes: null, outcome: 'lost' } }),
    ];
    expect(sources(others)).toEqual(['usual: usual for metal film-forming on stainless']);
  });

  const cell = (powerW: number, speedMmPerS: number, outcome: 'holds' | 'under' | 'over') => ({
    ...{ powerW, speedMmPerS, outcome, intervalMm: 0.075 },
  });
  const carried = (tried: KnownBefore['tried']) =>
    startingPoints(equipment, FILM, { stated: [], tried: tried! })
      .filter(({ grade }) => grade === 'carried')
      .map(({ powerW, speedMmPerS }) => [powerW, speedMmPerS.low, speedMmPerS.high]);

  it('is laid round what held before with about the most power', () => {
    const held = [cell(38, 32, 'holds'), cell(36, 55, 'holds'), cell(38, 80, 'under'), cell(20, 12, 'holds')];
    expect(carried(held)).toEqual([[38, 32, 55]]);
  });

  it('goes on beyond what was tried where none held, and starts anew where both was seen', () => {
    expect(carried([cell(38, 60, 'under'), cell(30, 90, 'under')])).toEqual([[38, 20, 60]]);
    expect(carried([cell(38, 60, 'over'), cell(30, 90, 'over')])).toEqual([[38, 90, 270]]);
    expect(carried([cell(38, 60, 'over'), cell(30, 90, 'under')])).toEqual([]);
  });

  it('takes over what held under another head or on another part, with the spot and metal it was heated by', () => {
    const under = { radiusMm: 0.06, conductivity: 0.016, diffusivity: 4 };
    const cells = [
      { powerW: 30, speedMmPerS: 90, outcome: 'holds' as const, intervalMm: 0.075 },
      { powerW: 30, speedMmPerS: 150, outcome: 'under' as const, intervalMm: 0.075 },
    ];
    const elsewhere = [{ head: 'Old bench', lens: 'short lens', substrate: '430', under, cells, refused: null }];
    expect(startingPoints(equipment, FILM, { stated: [], elsewhere })[0]).toEqual({
      ...{ powerW: 30, speedMmPerS: { low: 90, high: 90 }, intervalMm: 0.075, grade: 'carried', under },
      source: 'held under Old bench, short lens, on 430',
    });
  });

  it('makes a range of a note in percent whose top speed nobody said, and says what it takes for it', () => {
    // 90 % power and 25 % speed on 75 W (common practice, no source).
    const note = stated({
      ...{ ratedW: 75, powerPercent: 90, powerW: 67.5, speedMmPerS: null },
      ...{ power: { value: 90, unit: '%' }, speed: { value: 25, unit: '%' } },
    });
    const [point] = startingPoints(equipment, FILM, { stated: [note] });
    // Usual CO2 machines run at most 400 to 1000 mm/s.
    expect(point).toMatchObject({ powerW: 67.5, speedMmPerS: { low: 100, high: 250 }, grade: 'usual' });
    expect(point!.source).toBe('Tags: old note, the top speed of that head, not said, taken as 400 to 1000 mm/s');
    const [{ low, high, part }] = assumedOf(note) as [Assumed];
    expect([low, high, part]).toEqual([400, 1000, 'topSpeedMmPerS']);
    const typed = new Map([[assumedKey({ id: ID, part }), 600]]);
    expect(startingPoints(equipment, FILM, { stated: [note], typed })[0]).toMatchObject({
      ...{ powerW: 67.5, speedMmPerS: { low: 150, high: 150 }, grade: 'stated', source: 'Tags: old note' },
    });
  });

  it('carries an unknown power into the speeds: the dose is as unsure as both', () => {
    const note = stated({
      ...{ ratedW: null, powerPercent: 50, powerW: null, speedMmPerS: 100 },
      ...{ power: { value: 50, unit: '%' }, speed: { value: 100, unit: 'mm/s' } },
    });
    const [point] = startingPoints(equipment, FILM, { stated: [note] });
    const { powerW, speedMmPerS } = point!;
    // From 38 to 100 W: 19 to 50 W at the part, so that P over v spans what those say at 100 mm/s.
    expect(powerW / speedMmPerS.high).toBeCloseTo(19 / 100, 9);
    expect(powerW / speedMmPerS.low).toBeCloseTo(50 / 100, 9);
  });

  it('takes for bare marking what names no compound', () => {
    expect(sources([stated(), stated({ compound: '' })], null)).toEqual(['stated: Tags: old note']);
  });
});
