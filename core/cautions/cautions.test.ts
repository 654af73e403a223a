import { describe, expect, it } from 'vitest';
import { SUBSTRATE_FAMILIES, SURFACE_LAYERS, WAVELENGTH_CLASSES, COMPOUND_FORMS } from '../choose/vocabulary.js';
import { cautionsFor, STATIONS, type CautionContext, type Station } from './cautions-for.js';

const PLAIN: CautionContext = {
  family: 'stainless',
  layer: 'bare',
  form: 'metal film-forming',
  handling: 'can be touched',
  beam: 'co2',
  headName: 'Long bench CO2',
  eyewear: 'the clear pair',
  solventBased: true,
  foodUse: false,
  thinner: '',
  cleaning: 'Plain water and a sponge',
  round: false,
};
const codes = (station: Station, change: Partial<CautionContext> = {}) =>
  cautionsFor(station, { ...PLAIN, ...change }).map(({ code }) => code);
const text = (station: Station, code: string, change: Partial<CautionContext> = {}) => {
  const found = cautionsFor(station, { ...PLAIN, ...change }).find((caution) => caution.code === code)!;
  return `${found.title} ${found.text}`;
};

// What can hurt someone, and where it is said: common practice, no source; the data sheet and the manual rule.
describe('cautions', () => {
  it('name the head that is fitted and its own eyewear wherever it fires, under a code of its wavelength class', () => {
    for (const station of ['place', 'prove', 'mark'] as const)
      for (const beam of WAVELENGTH_CLASSES) {
        expect(codes(station, { beam })).toContain(`eyewear-${beam}`);
        expect(text(station, `eyewear-${beam}`, { beam, headName: 'Post', eyewear: 'the green pair' })).toMatch(
          /Post fitted[\s\S]*the green pair[\s\S]*another wavelength does not stop this beam[\s\S]*Enclosure shut/,
        );
      }
  });

  it('keep vapour from the laser while a coat dries, and a wet coat from the beam', () => {
    expect(text('coat', 'wet-coat')).toMatch(/Solvent vapour burns[\s\S]*away from the laser[\s\S]*all gloss is gone/);
    expect(text('coat', 'wet-coat', { solventBased: false })).toMatch(/Never fire a wet coat/);
    expect(codes('coat', { form: null })).not.toContain('wet-coat');
  });

  it('ask for gloves and respirator with loose powder, at coating and at marking', () => {
    for (const station of ['coat', 'mark'] as const)
      expect(text(station, 'powder', { handling: 'loose powder' })).toMatch(
        /gloves and respirator[\s\S]*air assist off/i,
      );
    expect(codes('mark')).not.toContain('powder');
  });

  it.each([
    [{ family: 'stainless' }, /chromium and nickel/],
    [{ family: 'steel', layer: 'chrome plate' }, /hexavalent chromium/],
    [{ family: 'galvanised' }, /zinc oxide/],
  ] as const)('name the fume of %j where it is fired', (change, fume) => {
    expect(text('mark', 'metal-fume', change)).toMatch(fume);
    expect(text('prove', 'metal-fume', change)).toMatch(/Extraction on/);
  });

  it.each([
    [{ layer: 'painted' }, /Paint, lacquer and powder coating/],
    [{ family: 'steel', layer: 'powder-coated' }, /Paint, lacquer and powder coating/],
    [{ family: 'zinc' }, /zinc oxide/],
    [{ family: 'acrylic' }, /Acrylic/],
    [{ family: 'bone' }, /Bone/],
  ] as const)('name what %j gives off', (change, title) => {
    for (const station of ['prove', 'mark'] as const) expect(text(station, 'metal-fume', change)).toMatch(title);
  });

  it('say that bare metal throws the beam, where it may be fired, and not of painted', () => {
    for (const station of ['place', 'prove', 'mark'] as const) expect(codes(station)).toContain('reflection');
    expect(text('mark', 'reflection')).toMatch(/enclosure shut[\s\S]*interlocks/);
    expect(codes('mark', { layer: 'painted' })).not.toContain('reflection');
    expect(codes('mark', { family: 'glass' })).not.toContain('reflection');
  });

  it('name lead in brass and crystal too, sulphur of the lubricant, lungs of a film, and alcohol where it is used', () => {
    expect(text('mark', 'lead', { family: 'brass' })).toMatch(/brass holds lead/);
    expect(text('prove', 'lead', { family: 'glass' })).toMatch(/Crystal/);
    expect(text('mark', 'sulphur', { form: 'dry-film lubricant' })).toMatch(/sulphur dioxide/);
    expect(codes('mark')).not.toContain('sulphur');
    expect(text('coat', 'lungs')).toMatch(/Ventilate while spraying/);
    expect(codes('coat', { form: null })).not.toContain('lungs');
    expect(text('coat', 'alcohol', { thinner: 'denatured alcohol' })).toMatch(/poisonous, and burns/);
    expect(text('clean', 'alcohol', { cleaning: 'Isopropyl alcohol' })).toMatch(/poisonous/);
    expect(codes('coat')).not.toContain('alcohol');
  });

  it('mind the rotary, the drill, and hot glass before the rinse of a coupon', () => {
    expect(text('mark', 'rotary', { round: true })).toMatch(/pinches/);
    expect(codes('mark')).not.toContain('rotary');
    expect(text('prepare', 'drilling')).toMatch(/hardens under the drill/);
    expect(codes('prove', { family: 'glass' })).toContain('hot-glass');
  });

  it('say nothing of metal fume on glass', () =>
    expect(codes('mark', { family: 'glass' })).not.toContain('metal-fume'));

  it('let hot glass cool, and warn that a marked vessel may be weaker', () => {
    for (const family of ['glass', 'glazed ceramic', 'vitreous enamel'] as const)
      expect(text('clean', 'hot-glass', { family })).toMatch(/cool[\s\S]*eye and hand protection[\s\S]*weaker/);
    expect(codes('clean')).not.toContain('hot-glass');
  });

  it('think of lead and cadmium in glaze and enamel, and of food at choosing and judging', () => {
    expect(codes('choose', { family: 'glazed ceramic' })).toContain('lead');
    expect(codes('choose', { family: 'vitreous enamel' })).toContain('lead');
    expect(codes('choose')).not.toContain('lead');
    expect(codes('choose', { foodUse: true })).toContain('food');
    expect(text('judge', 'food', { foodUse: true })).toMatch(/away from the lip/);
  });

  it('never leave a running laser alone, nor call a firing for focus harmless', () => {
    expect(text('mark', 'unattended')).toMatch(/Never leave a running laser[\s\S]*extinguisher/);
    expect(text('place', 'focus-fires')).toMatch(/Enclosure shut and eyewear on, also at 1 %[\s\S]*machine off/);
  });

  it('mind the rinse water of every compound, and the edges of sheet', () => {
    expect(codes('clean')).toContain('rinse-water');
    expect(codes('clean', { form: null })).not.toContain('rinse-water');
    expect(codes('prepare')).toContain('sharp');
  });

  it('end with whom to ask, everywhere, and never state a protection as sufficient', () => {
    for (const station of STATIONS)
      for (const family of SUBSTRATE_FAMILIES)
        for (const layer of SURFACE_LAYERS)
          for (const form of [...COMPOUND_FORMS, null])
            for (const caution of cautionsFor(station, {
              ...PLAIN,
              family,
              layer,
              form,
              handling: form ? 'loose powder' : null,
              foodUse: true,
            })) {
              expect(`${caution.title} ${caution.text}`).toMatch(/ask|Follow/i);
              expect(`${caution.title} ${caution.text}`).not.toMatch(/\b(safe|sufficient|fully protects|OD ?\d)\b/i);
              expect(caution.text.length).toBeLessThan(260);
            }
  });

  it('have one code a station each, so that understanding one does not hide another', () => {
    for (const station of STATIONS) {
      const all = codes(station, { handling: 'loose powder', foodUse: true, family: 'glazed ceramic' });
      expect(new Set(all).size).toBe(all.length);
    }
  });
});
