import { describe, expect, it } from 'vitest';
import { judgeCompound, type CompoundFacts } from './judge-compound.js';
import { judgeMethod } from './methods.js';
import type { CompoundForm, SubstrateFamily, SurfaceLayer, WavelengthClass } from './vocabulary.js';

/**
 * The methods of the trade against parts and beams, row by row. Common practice, no source. Verdicts: o offered, w with doubts,
 * x withheld; all before anything was proved in this shop.
 */
const FAMILIES = [
  'stainless',
  'steel',
  'brass',
  'copper',
  'aluminium',
  'glass',
  'glazed ceramic',
  'vitreous enamel',
] as const;
const METALS: readonly SubstrateFamily[] = ['stainless', 'steel', 'brass', 'copper', 'aluminium'];
const GLASSES: readonly SubstrateFamily[] = ['glass', 'glazed ceramic', 'vitreous enamel'];

interface Row {
  readonly form: CompoundForm;
  readonly named: readonly SubstrateFamily[];
  readonly beams: readonly WavelengthClass[];
  readonly co2: string;
  readonly blue: string;
}

const ROWS: readonly Row[] = [
  // Film-forming marks aluminium only slowly; a diode is proved on stainless, doubtful on brass, copper and aluminium.
  { form: 'metal film-forming', named: METALS, beams: ['co2', 'near-infrared'], co2: 'oooowxxx', blue: 'wwwwwxxx' },
  { form: 'metal powder-drying', named: METALS, beams: ['co2', 'near-infrared'], co2: 'oooooxxx', blue: 'wwwwwxxx' },
  { form: 'metal thin-laying', named: METALS, beams: ['co2', 'near-infrared'], co2: 'oooooxxx', blue: 'wwwwwxxx' },
  // A lubricant is kept from everything but stainless; nobody names a beam for it.
  { form: 'dry-film lubricant', named: ['stainless'], beams: [], co2: 'wxxxxxxx', blue: 'wxxxxxxx' },
  { form: 'home-made coat', named: ['stainless'], beams: ['co2', 'blue'], co2: 'owwwwwww', blue: 'owwwwxww' },
  // Glass compounds are kept from metal; clear glass lets blue light through.
  { form: 'glass and ceramic', named: GLASSES, beams: ['co2', 'near-infrared'], co2: 'xxxxxooo', blue: 'xxxxxxww' },
  { form: 'universal', named: [...METALS, ...GLASSES], beams: ['co2'], co2: 'oooooooo', blue: 'wwwwwxww' },
  { form: 'coloured metal', named: METALS, beams: ['co2'], co2: 'oooooxxx', blue: 'wwwwwxxx' },
  { form: 'coloured glass and ceramic', named: GLASSES, beams: ['co2'], co2: 'xxxxxooo', blue: 'xxxxxxww' },
];
const LETTER = { offered: 'o', warned: 'w', blocked: 'x' } as const;
const facts = ({ form, named, beams }: Row): CompoundFacts => ({
  form,
  statedFamilies: named,
  statedBeams: beams,
  containsPtfe: false,
});
const letters = (row: Row, beam: WavelengthClass) =>
  FAMILIES.map(
    (family) => LETTER[judgeCompound(facts(row), { family, layer: 'bare' }, beam, { provedCoupons: 0 }).verdict],
  ).join('');

describe('compounds by part, on bare surfaces', () => {
  it.each(ROWS)('$form under CO2', (row) => expect(letters(row, 'co2')).toBe(row.co2));
  it.each(ROWS)('$form under a blue diode', (row) => expect(letters(row, 'blue')).toBe(row.blue));

  it.each(ROWS)('$form gives way to a coupon that held here, and is then offered', (row) => {
    for (const family of FAMILIES) {
      const { verdict, reasons } = judgeCompound(facts(row), { family, layer: 'bare' }, 'co2', { provedCoupons: 1 });
      expect(verdict).toBe('offered');
      expect(reasons.at(-1)).toMatchObject({ code: 'proved-here', grade: 'proved', favourable: true });
    }
  });
});

describe('compounds by surface layer', () => {
  const film = facts(ROWS[0]!);
  const verdictOn = (layer: SurfaceLayer, family: SubstrateFamily = 'steel') =>
    judgeCompound(film, { family, layer }, 'co2', { provedCoupons: 0 }).verdict;

  it.each(['anodised', 'painted', 'powder-coated', 'lacquered', 'film'] as const)(
    '%s is no metallic surface',
    (layer) => {
      expect(verdictOn(layer)).toBe('blocked');
    },
  );

  it('metal plating counts as metal, chrome with its own fume caution', () => {
    expect(verdictOn('nickel plate')).toBe('offered');
    expect(verdictOn('chrome plate')).toBe('warned');
  });

  it('cadmium plate is not lasered at all', () => {
    expect(verdictOn('cadmium plate')).toBe('blocked');
    expect(judgeCompound(film, { family: 'steel', layer: 'cadmium plate' }, 'co2', { provedCoupons: 9 }).verdict).toBe(
      'blocked',
    );
  });
});

describe('marking without a compound', () => {
  const HEADS = {
    'blue 5 W': { beam: 'blue', ratedW: 5 },
    'blue 10 W': { beam: 'blue', ratedW: 10 },
    'infrared 1 W': { beam: 'near-infrared', ratedW: 1 },
    'infrared 2 W': { beam: 'near-infrared', ratedW: 2 },
    'CO2 40 W': { beam: 'co2', ratedW: 40 },
  } as const;

  it.each([
    ['infrared on bare metal', 'brass', 'bare', 'infrared 2 W', 'warned'],
    ['infrared on bare metal', 'brass', 'bare', 'infrared 1 W', 'blocked'],
    ['infrared on bare metal', 'steel', 'chrome plate', 'infrared 2 W', 'warned'],
    ['infrared on bare metal', 'aluminium', 'anodised', 'infrared 2 W', 'blocked'],
    ['infrared on bare metal', 'zinc', 'bare', 'infrared 2 W', 'warned'],
    ['blue diode on stainless', 'stainless', 'bare', 'blue 10 W', 'warned'],
    ['blue diode on stainless', 'stainless', 'bare', 'blue 5 W', 'blocked'],
    ['blue diode on stainless', 'stainless', 'film', 'blue 10 W', 'blocked'],
    ['burn off the layer', 'aluminium', 'anodised', 'blue 5 W', 'offered'],
    ['burn off the layer', 'steel', 'painted', 'CO2 40 W', 'warned'],
    ['burn off the layer', 'steel', 'powder-coated', 'blue 10 W', 'warned'],
    ['burn off the layer', 'stainless', 'bare', 'blue 10 W', 'blocked'],
    ['infrared on black acrylic', 'acrylic', 'bare', 'infrared 2 W', 'offered'],
    ['infrared on black acrylic', 'PVC', 'bare', 'infrared 2 W', 'blocked'],
    ['ultraviolet, no coat', 'glass', 'bare', 'CO2 40 W', 'blocked'],
  ] as const)('%s on %s, %s, under %s: %s', (method, family, layer, head, verdict) => {
    expect(judgeMethod(method, { family, layer }, HEADS[head]).verdict).toBe(verdict);
  });
});
