import type { TransferKnowledge } from './transfer.js';

/** How a coat is laid on. */
export const APPLICATIONS = ['aerosol', 'gun', 'airbrush', 'foam brush', 'automatic'] as const;
export type Application = (typeof APPLICATIONS)[number];

const usual = (value: number, low: number, high: number): TransferKnowledge => ({
  ...{ value, low, high },
  grade: 'usual',
  weighings: 0,
});

/**
 * Share of the solids that stays on small parts before anybody weighed any, with the range that holds nine times in ten. Common
 * practice, no source.
 */
export const USUAL_TRANSFERS: Record<Application, TransferKnowledge> = {
  aerosol: usual(0.35, 0.22, 0.5),
  gun: usual(0.45, 0.3, 0.65),
  airbrush: usual(0.6, 0.4, 0.8),
  'foam brush': usual(0.9, 0.75, 0.98),
  automatic: usual(0.5, 0.35, 0.7),
};

/** How a compound is made ready and laid with each. Common practice, no source. */
export interface ApplicationCare {
  readonly verb: 'Shake' | 'Stir';
  readonly until: string;
  readonly asked: string;
  readonly passed: string;
  /** Held at a distance and laid in strokes of a fan. */
  readonly sprays: boolean;
}

const STIRRED = { verb: 'Stir', asked: 'Is it even, nothing on the bottom?', passed: 'It is even' } as const;
export const APPLICATION_CARE: Record<Application, ApplicationCare> = {
  aerosol: {
    verb: 'Shake',
    until: 'until the ball runs free',
    asked: 'Does the ball run free?',
    passed: 'The ball runs free',
    sprays: true,
  },
  gun: { ...STIRRED, until: 'until nothing lies on the bottom, then strain it into the cup', sprays: true },
  airbrush: { ...STIRRED, until: 'until nothing lies on the bottom, then strain it into the cup', sprays: true },
  'foam brush': { ...STIRRED, until: 'until it is even', sprays: false },
  automatic: {
    ...STIRRED,
    until: 'until nothing lies on the bottom, then strain it and run a test pass',
    sprays: true,
  },
};
