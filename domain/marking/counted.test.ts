import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countedMinutes, countedPieces, countedSoFar, stopsIn, type PieceEvent } from './counted.js';

const START = '2026-11-29T09:00:00.000Z';
const at = (seconds: number) => new Date(Date.parse(START) + 1000 * seconds).toISOString();
const event = (piece: number, seconds: number, change: Partial<PieceEvent> = {}): PieceEvent => ({
  ...{ piece, what: 'done', why: null, at: at(seconds), by: 'ines' },
  ...change,
});
const marking = (events: readonly PieceEvent[], pieces = 6) => ({
  ...{ pieces, startedAt: START },
  counted: countedPieces(events),
});

describe('pieces counted at the bench', () => {
  it('stand as they were said last, whoever said it', () => {
    const counted = countedPieces([
      event(1, 60),
      event(2, 120, { what: 'set aside', why: 'moved in the jig', spot: { x: 0.9, y: 0.1 } }),
      event(2, 130, { by: 'tobin' }),
      event(3, 200),
      event(3, 210, { what: 'taken back' }),
    ]);
    expect(counted.map(({ piece, state, by }) => [piece, state, by])).toEqual([
      [1, 'done', 'ines'],
      [2, 'done', 'tobin'],
      [3, 'to go', 'ines'],
    ]);
    expect(counted[1]!.spot).toBeNull();
  });

  it('are each counted once, in whatever order two people say the same', () => {
    const piece = fc.record({ piece: fc.integer({ min: 1, max: 8 }), seconds: fc.integer({ min: 0, max: 900 }) });
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (said) => {
        const { done, aside, toGo } = countedSoFar(
          marking(
            said.map((one) => event(one.piece, one.seconds)),
            8,
          ),
          null,
          Date.parse(at(1000)),
        );
        expect(done).toBe(new Set(said.map((one) => one.piece)).size);
        expect(done + aside + toGo).toBe(8);
      }),
    );
  });

  it('say how far it is, what a piece took and when it ends: by the plan until the first is done', () => {
    const none = countedSoFar(marking([]), 50, Date.parse(at(20)));
    expect(none).toMatchObject({ done: 0, toGo: 6, next: 1, paceS: null, expectedS: 300, elapsedS: 20 });
    const two = countedSoFar(marking([event(1, 60), event(3, 130)]), 50, Date.parse(at(150)));
    expect(two).toMatchObject({ done: 2, toGo: 4, next: 2, paceS: 65, expectedS: 390 });
    expect(countedSoFar(marking([], 2), null, Date.parse(at(5))).expectedS).toBeNull();
  });

  it('measure the minutes to the piece counted last, set aside or not, and never less than a second', () => {
    expect(countedMinutes(marking([event(1, 60), event(2, 150, { what: 'set aside', why: 'scorched' })]))).toBe(2.5);
    expect(countedMinutes(marking([event(1, 0)]))).toBeCloseTo(1 / 60, 9);
  });

  it('tell a stop from the pace of the others', () => {
    expect(stopsIn(marking([60, 120, 180, 1080, 1140].map((s, i) => event(i + 1, s))))).toEqual([840]);
    expect(stopsIn(marking([event(1, 60), event(2, 900)]))).toEqual([]);
  });
});
