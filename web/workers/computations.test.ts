import { CoreError, fitWindow, layoutCoupon, windowMap } from '@unto/core';
import { expose, wrap, type Remote } from 'comlink';
import { afterEach, describe, expect, it } from 'vitest';
import { designOf, firstDraft } from '../coupons/design-form';
import { answered, valueOf, type Computations } from './computations';

const ports: MessagePort[] = [];
afterEach(() => ports.splice(0).forEach((port) => port.close()));

/** The worker's border without a worker: the same messages over a channel. */
function overChannel(api: Partial<Computations>): Remote<Computations> {
  const { port1, port2 } = new MessageChannel();
  ports.push(port1, port2);
  expose(api, port1 as never);
  return wrap<Computations>(port2 as never);
}
const LIMITS = { bed: { widthMm: 700, heightMm: 500 }, topSpeedMmPerS: 600, firingThresholdPercent: 7 };

describe('the worker’s border', () => {
  it('carries values whole', async () => {
    const core = overChannel({ drawing: async (layout) => answered(() => `${layout.cells.length} cells`) });
    const layout = layoutCoupon(designOf(firstDraft(LIMITS)), LIMITS);
    expect(valueOf(await core.drawing(layout))).toBe('56 cells');
  });

  it('carries typed arrays of a fit', async () => {
    const cells = [{ powerW: 40, speedMmPerS: 100, intervalMm: 0.06, passes: 1, outcome: 'holds' as const }];
    const fit = fitWindow({ cells, equipment: { radiusMm: 0.08, conductivity: 0.0162, diffusivity: 4.05 }, seed: 3 });
    const map = windowMap(fit, { powersW: [30, 40], speedsMmPerS: [90, 110], rest: { intervalMm: 0.06, passes: 1 } });
    const core = overChannel({
      window: async () =>
        answered(() => ({
          ...{ fit, odd: [], seen: [], notes: [], next: null },
          answer: { quickest: null, widest: null, strongest: null, cheapest: null, mix: null },
        })),
      map: async () => answered(() => map),
    });
    const drawn = valueOf(await core.window({} as never));
    expect(drawn.fit.bond.values).toEqual(fit.bond.values);
    expect(valueOf(await core.map({} as never)).holds).toHaveLength(4);
  });

  it('carries the core’s refusals with code, field and line', async () => {
    const core = overChannel({
      readTable: async () =>
        answered(() => {
          throw new CoreError('csv.bad-cell', 'Line 3: no.', { line: 3, path: 'cell' });
        }),
    });
    const answer = await core.readTable({ text: '', layout: {} as never });
    expect(() => valueOf(answer)).toThrow(CoreError);
    expect(answer).toMatchObject({ ok: false, code: 'csv.bad-cell', line: 3, path: 'cell' });
  });

  it('lets a bug through as a bug', () => {
    expect(() =>
      answered(() => {
        throw new TypeError('bug');
      }),
    ).toThrow(TypeError);
  });
});
