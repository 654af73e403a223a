import { describe, expect, it } from 'vitest';
import type { Revisions } from '@unto/contract';
import { sameRevisions } from './same-revisions.js';

const REVISIONS = {
  substrate: 's@1',
  compound: 'c@1',
  head: 'h@1',
  lens: 'l@1',
  machine: 'm@1',
  calibration: 'k@1',
} as unknown as Revisions;

describe('records on the same revisions', () => {
  it('agree in all of them', () => {
    expect(sameRevisions(REVISIONS, { ...REVISIONS })).toBe(true);
  });
  it.each(Object.keys(REVISIONS))('are others when only the %s was revised', (part) => {
    expect(sameRevisions(REVISIONS, { ...REVISIONS, [part]: 'other@2' })).toBe(false);
    expect(sameRevisions({ ...REVISIONS, [part]: null } as unknown as Revisions, REVISIONS)).toBe(false);
  });
});
