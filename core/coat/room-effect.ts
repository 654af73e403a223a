import { studentT90 } from '../statistics/index.js';
import { requirePositive } from '../support/require.js';
import { straightLine } from './trend.js';

/** A coat whose transfer was weighed, with what was noted of the room. */
export interface RoomSample {
  /** Share of the solids that reached the part, above 0. */
  readonly transfer: number;
  /** Temperature, °C, or relative humidity, %. */
  readonly room: number;
}

/** What the room does to how much of a compound reaches the part. */
export interface RoomEffect {
  readonly count: number;
  /** Change of the transfer for one °C or one % of humidity, as a fraction of it, with its 90 % interval. */
  readonly perUnit: number;
  readonly low: number;
  readonly high: number;
  /** Whether the interval leaves nought out. */
  readonly seen: boolean;
}

/** Fewer tell next to nothing of a slope; and a room that hardly changed tells nothing however many. Common practice, no source. */
export const ROOM_SAMPLES = 8;
const LEAST_SPREAD = 3;

/**
 * How transfer went with one thing of the room, from a straight line through its logarithm; null while too few coats were weighed with the
 * room noted, or the room was always much the same. What else changed with the room is in it: it is seen, not explained.
 * @throws value.not-positive for a transfer of nought
 * @example roomEffect([]) // null
 */
export function roomEffect(samples: readonly RoomSample[]): RoomEffect | null {
  samples.forEach(({ transfer }) => requirePositive('transfer', transfer));
  const rooms = samples.map(({ room }) => room);
  if (samples.length < ROOM_SAMPLES || Math.max(...rooms) - Math.min(...rooms) < LEAST_SPREAD) return null;
  const line = straightLine(samples.map(({ room, transfer }) => ({ x: room, y: Math.log(transfer) })));
  const half = studentT90(samples.length - 2) * line.slopeError;
  const [low, high] = [line.slope - half, line.slope + half];
  return { count: samples.length, perUnit: line.slope, low, high, seen: low > 0 || high < 0 };
}
