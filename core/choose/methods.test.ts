import { describe, expect, it } from 'vitest';
import { isUncoated, judgeMethod, METHOD_WORDS, METHODS, uncoatedWay } from './methods.js';
import type { PartFacts } from './verdict.js';

const bare = (family: PartFacts['family']): PartFacts => ({ family, layer: 'bare' });
const co2 = { beam: 'co2', ratedW: 55 } as const;
const fibre = { beam: 'near-infrared', ratedW: 25 } as const;
const blue = (ratedW: number) => ({ beam: 'blue', ratedW }) as const;
const codes = (...args: Parameters<typeof judgeMethod>) => judgeMethod(...args).reasons.map(({ code }) => code);

// Which method for which part and head: common practice, no source.
describe('what was proved without a coat', () => {
  it.each([
    [bare('aluminium'), 'near-infrared', 'infrared on bare metal'],
    [bare('stainless'), 'blue', 'blue diode on stainless'],
    [{ family: 'aluminium', layer: 'anodised' }, 'near-infrared', 'burn off the layer'],
    [bare('acrylic'), 'near-infrared', 'infrared on black acrylic'],
    [bare('aluminium'), 'ultraviolet', 'ultraviolet, no coat'],
    [bare('aluminium'), 'co2', null],
    [bare('glass'), 'near-infrared', null],
  ] as const)('of %j under %s is proof of “%s” alone', (part, beam, way) => {
    expect(uncoatedWay(part, beam)).toBe(way);
  });

  it('never lifts that this head has no such beam', () => {
    const judged = judgeMethod('ultraviolet, no coat', bare('glass'), fibre, { provedCoupons: 2 });
    expect(judged.verdict).toBe('blocked');
    const lifted = judgeMethod('blue diode on stainless', bare('brass'), blue(12), { provedCoupons: 1, byEye: true });
    expect(lifted.reasons.at(-1)).toMatchObject({ code: 'proved-here', grade: 'proved by eye' });
  });
});

describe('methods of the trade', () => {
  it('are all judged on every part and head, with a reason for whatever is not offered', () => {
    for (const method of METHODS) {
      expect(METHOD_WORDS[method].length).toBeGreaterThan(5);
      for (const family of ['stainless', 'aluminium', 'glass', 'acrylic', 'PVC'] as const)
        for (const head of [co2, fibre, blue(12)]) {
          const { verdict, reasons } = judgeMethod(method, bare(family), head);
          if (verdict !== 'offered') expect(reasons.length).toBeGreaterThan(0);
          if (family === 'PVC') expect(verdict).toBe('blocked');
        }
    }
  });

  it('mark bare metal with infrared from 2 W, and nothing else so', () => {
    expect(judgeMethod('infrared on bare metal', bare('brass'), fibre).verdict).toBe('warned');
    expect(codes('infrared on bare metal', bare('brass'), { ...fibre, ratedW: 1 })).toEqual(['not-reachable']);
    expect(codes('infrared on bare metal', bare('brass'), co2)).toEqual(['wrong-beam']);
    expect(codes('infrared on bare metal', bare('glass'), fibre)).toEqual(['not-metal']);
    expect(codes('infrared on bare metal', { family: 'steel', layer: 'chrome plate' }, fibre)).toContain('chrome');
    expect(codes('infrared on bare metal', bare('galvanised'), fibre)).toContain('zinc');
  });

  it('colour stainless with a blue diode of 10 W, slowly', () => {
    expect(codes('blue diode on stainless', bare('stainless'), blue(12))).toEqual(['very-slow']);
    expect(codes('blue diode on stainless', bare('stainless'), blue(5))).toEqual(['not-reachable']);
    expect(codes('blue diode on stainless', bare('copper'), blue(12))).toEqual(['stainless-only']);
  });

  it('burn a layer off: anodised forgiving, paint touchy', () => {
    const anodised = { family: 'aluminium', layer: 'anodised' } as const;
    expect(judgeMethod('burn off the layer', anodised, blue(12)).verdict).toBe('offered');
    expect(codes('burn off the layer', { family: 'steel', layer: 'painted' }, co2)).toEqual(['touchy']);
    expect(codes('burn off the layer', bare('steel'), co2)).toEqual(['nothing-to-burn']);
    expect(codes('burn off the layer', anodised, { beam: 'ultraviolet', ratedW: 3 })).toEqual(['wrong-beam']);
  });

  it('keep ultraviolet and acrylic to themselves', () => {
    expect(judgeMethod('infrared on black acrylic', bare('acrylic'), fibre).verdict).toBe('offered');
    expect(codes('infrared on black acrylic', bare('acrylic'), co2)).toEqual(['wrong-beam']);
    expect(codes('ultraviolet, no coat', bare('glass'), { beam: 'ultraviolet', ratedW: 3 })).toEqual(['own-class']);
    expect(codes('ultraviolet, no coat', bare('glass'), co2)).toEqual(['wrong-beam']);
  });

  it('judge kinds of compound by their usual label', () => {
    expect(judgeMethod('metal film-forming', bare('stainless'), co2).verdict).toBe('offered');
    expect(judgeMethod('glass and ceramic', bare('stainless'), co2).verdict).toBe('blocked');
    expect(judgeMethod('universal', bare('vitreous enamel'), co2).verdict).toBe('offered');
    expect(judgeMethod('dry-film lubricant', bare('copper'), co2).verdict).toBe('blocked');
    expect(METHODS.filter(isUncoated)).toHaveLength(5);
  });

  it('give way to a coupon that held here, but never to danger', () => {
    const evidence = { provedCoupons: 1 };
    expect(judgeMethod('blue diode on stainless', bare('brass'), blue(12), evidence).verdict).toBe('offered');
    expect(
      judgeMethod('infrared on bare metal', { family: 'steel', layer: 'cadmium plate' }, fibre, evidence).verdict,
    ).toBe('blocked');
  });
});
