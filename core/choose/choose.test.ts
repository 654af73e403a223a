import { describe, expect, it } from 'vitest';
import { judgeCompound, type CompoundFacts } from './judge-compound.js';
import type { PartFacts } from './verdict.js';
import {
  isMetal,
  isVitreous,
  SUBSTRATE_FAMILIES,
  SURFACE_LAYERS,
  WAVELENGTH_CLASSES,
  COMPOUND_FORMS,
} from './vocabulary.js';

const NONE = { provedCoupons: 0 };
const film: CompoundFacts = {
  form: 'metal film-forming',
  statedBeams: ['co2', 'near-infrared'],
  statedFamilies: ['stainless', 'steel', 'brass', 'copper', 'aluminium'],
  containsPtfe: false,
};
const lubricant: CompoundFacts = {
  form: 'dry-film lubricant',
  statedBeams: [],
  statedFamilies: ['stainless'],
  containsPtfe: false,
};
const glass: CompoundFacts = {
  form: 'glass and ceramic',
  statedBeams: ['co2'],
  statedFamilies: ['glass', 'glazed ceramic'],
  containsPtfe: false,
};
const bare = (family: PartFacts['family']): PartFacts => ({ family, layer: 'bare' });
const codes = (judgement: ReturnType<typeof judgeCompound>) => judgement.reasons.map(({ code }) => code);

// Facts of the trade: common practice, no source.
describe('compounds for parts', () => {
  it('offers a film-forming metal compound on bare stainless under CO2, and says why', () => {
    const judgement = judgeCompound(film, bare('stainless'), 'co2', NONE);
    expect(judgement.verdict).toBe('offered');
    expect(codes(judgement)).toEqual(['stated']);
  });

  it.each(['copper', 'brass', 'aluminium', 'steel', 'glass'] as const)('keeps the lubricant from %s', (family) => {
    const judgement = judgeCompound(lubricant, bare(family), 'co2', NONE);
    expect(judgement.verdict).toBe('blocked');
    expect(codes(judgement)).toContain('lubricant');
  });

  it('lets the lubricant on stainless, off its label for the beam', () => {
    expect(judgeCompound(lubricant, bare('stainless'), 'co2', NONE)).toMatchObject({ verdict: 'warned' });
  });

  it('withholds a PTFE-bearing compound whatever was proved', () => {
    const judgement = judgeCompound({ ...lubricant, containsPtfe: true }, bare('stainless'), 'co2', {
      provedCoupons: 4,
    });
    expect(judgement.verdict).toBe('blocked');
    expect(judgement.reasons.find(({ code }) => code === 'ptfe')).toMatchObject({
      hard: true,
      text: expect.stringContaining('fluorinated'),
    });
  });

  it.each(['PVC', 'beryllium copper'] as const)('never lasers %s', (family) => {
    expect(judgeCompound(film, bare(family), 'co2', { provedCoupons: 1 }).verdict).toBe('blocked');
  });

  it('never lasers cadmium plate; chrome plate counts as metal with a fume warning', () => {
    expect(judgeCompound(film, { family: 'steel', layer: 'cadmium plate' }, 'co2', { provedCoupons: 1 }).verdict).toBe(
      'blocked',
    );
    const chrome = judgeCompound(film, { family: 'steel', layer: 'chrome plate' }, 'co2', NONE);
    expect(chrome.verdict).toBe('warned');
    expect(codes(chrome)).toContain('chrome');
  });

  it.each(['anodised', 'painted', 'powder-coated', 'lacquered', 'film'] as const)(
    'needs a bare metal surface, not a %s one',
    (layer) => {
      const judgement = judgeCompound(film, { family: 'aluminium', layer }, 'co2', NONE);
      expect(judgement.verdict).toBe('blocked');
      expect(codes(judgement)).toContain('covered');
    },
  );

  it('keeps glass compounds from metal and metal compounds from glass', () => {
    expect(codes(judgeCompound(glass, bare('stainless'), 'co2', NONE))).toContain('glass-only');
    expect(codes(judgeCompound(film, bare('glass'), 'co2', NONE))).toContain('metal-only');
    expect(judgeCompound(glass, bare('glass'), 'co2', NONE).verdict).toBe('offered');
  });

  it('warns of a diode off the label, and doubly on brass, copper and aluminium', () => {
    expect(codes(judgeCompound(film, bare('stainless'), 'blue', NONE))).toContain('beam-off-label');
    for (const family of ['brass', 'copper', 'aluminium'] as const)
      expect(codes(judgeCompound(film, bare(family), 'blue', NONE))).toContain('diode-doubtful');
    expect(codes(judgeCompound(glass, bare('glass'), 'blue', NONE))).toContain('not-absorbed');
  });

  it('says that film-forming compounds are slow on aluminium', () => {
    expect(codes(judgeCompound(film, bare('aluminium'), 'co2', NONE))).toContain('slow-aluminium');
  });

  it('gives way to a scrubbed coupon of this very pairing', () => {
    const judgement = judgeCompound(lubricant, bare('brass'), 'co2', { provedCoupons: 2 });
    expect(judgement.verdict).toBe('offered');
    expect(judgement.reasons.at(-1)).toMatchObject({ code: 'proved-here', grade: 'proved' });
  });

  it('judges every combination with a reason for whatever it does not offer', () => {
    for (const form of COMPOUND_FORMS) {
      for (const family of SUBSTRATE_FAMILIES) {
        for (const layer of SURFACE_LAYERS) {
          for (const beam of WAVELENGTH_CLASSES) {
            const judgement = judgeCompound({ ...film, form }, { family, layer }, beam, NONE);
            expect(judgement.reasons.length).toBeGreaterThan(0);
            expect(judgement.verdict === 'blocked').toBe(judgement.reasons.some(({ hard }) => hard));
          }
        }
      }
    }
    expect(SUBSTRATE_FAMILIES.some((family) => isMetal(family) && isVitreous(family))).toBe(false);
  });
});
