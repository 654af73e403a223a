import { PLAIN_SETTING } from '@unto/core';
import type { CreateStatedSetting } from '@unto/contract';

type Sketch = Pick<CreateStatedSetting, 'title' | 'family' | 'wavelengthClass' | 'source'> &
  Partial<Omit<CreateStatedSetting, 'id'>>;

const stated = (sketch: Sketch): Omit<CreateStatedSetting, 'id'> => ({
  compound: '',
  ratedW: null,
  topSpeedMmPerS: null,
  power: null,
  speed: null,
  interval: null,
  ...PLAIN_SETTING,
  note: '',
  past: null,
  ...sketch,
});

/** Settings that the demo's operators once noted down, in the units they came in. */
export const PRACTICE: readonly Omit<CreateStatedSetting, 'id'>[] = [
  stated({
    title: 'Metal film on stainless',
    compound: 'metal film-forming',
    family: 'stainless',
    wavelengthClass: 'co2',
    ratedW: 50,
    power: { value: 100, unit: '%' },
    speed: { value: 40, unit: '%' },
    source: 'old note in the can drawer',
    note: 'Top speed of that machine unknown.',
  }),
  stated({
    title: 'Opener blanks, 3 mm',
    family: 'stainless',
    wavelengthClass: 'co2',
    power: { value: 100, unit: '%' },
    speed: { value: 250, unit: 'mm/s' },
    interval: { value: 75, unit: 'lines/cm' },
    source: 'Tobin’s first trial',
    note: 'Focus height set to the thickness.',
    past: { on: '2025-04-13', pieces: 20, minutes: null, outcome: 'held' },
  }),
  stated({
    title: 'Brass, fine hatch',
    family: 'brass',
    wavelengthClass: 'co2',
    power: { value: 1000, unit: '0-1000' },
    speed: { value: 250, unit: 'mm/s' },
    interval: { value: 340, unit: 'lines/in' },
    source: 'data sheet of Corvid Film',
    note: '225 lines/in was coarser; 750 mm/s far too fast.',
  }),
  stated({
    title: 'Black on aluminium, no compound',
    family: 'aluminium',
    wavelengthClass: 'near-infrared',
    ratedW: 30,
    power: { value: 33, unit: '%' },
    speed: { value: 110, unit: 'mm/s' },
    interval: { value: 0.025, unit: 'mm' },
    frequencyKHz: 50,
    source: 'visiting operator',
    note: 'Hatch at 0°, focus a little high.',
  }),
  stated({
    title: 'Polished stainless, metal aerosol',
    family: 'stainless',
    wavelengthClass: 'blue',
    ratedW: 10,
    power: { value: 100, unit: '%' },
    speed: { value: 300, unit: 'mm/min' },
    source: 'old note in the can drawer',
    note: 'Air off.',
  }),
  stated({
    title: 'Tumbler glass',
    family: 'glass',
    wavelengthClass: 'co2',
    ratedW: 75,
    power: { value: 15, unit: '%' },
    speed: { value: 50, unit: '%' },
    source: 'label of Ternwhite Concentrate',
  }),
];
