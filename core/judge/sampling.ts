import { CoreError } from '../support/core-error.js';
import { shuffled, type Random } from '../support/random.js';
import { requireWithin } from '../support/require.js';

/** How sure a claim of a sample is meant to be: nine times in ten. */
export const SAMPLE_SURE = 0.9;

/** Pieces that were scrubbed, and those of them that lost their mark. */
export interface Scrubbed {
  readonly scrubbed: number;
  readonly lost: number;
}

/**
 * The largest share of the pieces that may lose their mark when as few of a sample as these did, nine times in ten: the exact one-sided bound
 * of Clopper & Pearson (1934) for a process; for a lot of so many pieces drawn without laying back, the exact hypergeometric one, a multiple
 * of 1 ÷ lot.
 * @param lot pieces the sample was drawn from, all of them counted; null for a process without end
 * @returns 0 to 1; 1 where nothing was scrubbed
 * @throws value.out-of-range for more lost than scrubbed, more scrubbed than there are, or a sureness outside 0–1
 */
export function mostLost({ scrubbed, lost }: Scrubbed, lot: number | null, sure: number = SAMPLE_SURE): number {
  requireWhole('pieces scrubbed', scrubbed, 0, lot ?? Number.MAX_SAFE_INTEGER);
  requireWhole('pieces lost', lost, 0, scrubbed);
  requireWithin('sureness', sure, 0, 1);
  if (scrubbed === 0) return 1;
  return lot === null ? mostOfProcess(scrubbed, lost, 1 - sure) : mostOfLot(scrubbed, lost, lot, 1 - sure);
}

function mostOfProcess(scrubbed: number, lost: number, risk: number): number {
  if (lost === scrubbed) return 1;
  let [low, high] = [lost / scrubbed, 1];
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (fewLost(scrubbed, lost, middle) > risk) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Chance that at most so many of a sample are lost where each is with chance p: binomial. */
function fewLost(scrubbed: number, lost: number, p: number): number {
  if (p <= 0) return 1;
  if (p >= 1) return lost >= scrubbed ? 1 : 0;
  let term = scrubbed * Math.log1p(-p);
  let sum = Math.exp(term);
  for (let k = 1; k <= lost; k += 1) {
    term += Math.log((scrubbed - k + 1) / k) + Math.log(p / (1 - p));
    sum += Math.exp(term);
  }
  return Math.min(1, sum);
}

function mostOfLot(scrubbed: number, lost: number, lot: number, risk: number): number {
  // The chance of so few falls with every lost piece more: the last number at which it is still above the risk.
  let [low, high] = [lost, lot - (scrubbed - lost)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (fewOfLot(scrubbed, lost, lot, middle) > risk) low = middle;
    else high = middle - 1;
  }
  return low / lot;
}

/** Chance that at most `lost` of a sample are among `bad` of a lot: hypergeometric. */
function fewOfLot(scrubbed: number, lost: number, lot: number, bad: number): number {
  const least = Math.max(0, scrubbed - (lot - bad));
  let sum = 0;
  for (let k = least; k <= Math.min(lost, bad); k += 1)
    sum += Math.exp(lnChoose(bad, k) + lnChoose(lot - bad, scrubbed - k) - lnChoose(lot, scrubbed));
  return Math.min(1, sum);
}

function requireWhole(name: string, value: number, low: number, high: number): void {
  if (!Number.isInteger(requireWithin(name, value, low, high)))
    throw new CoreError('value.out-of-range', `${name} must be a whole number; it is ${value}.`, { path: name });
}

const lnChoose = (n: number, k: number) => lnFactorial(n) - lnFactorial(k) - lnFactorial(n - k);

const LN_FACTORIALS: number[] = [0];
function lnFactorial(n: number): number {
  for (let i = LN_FACTORIALS.length; i <= n; i += 1) LN_FACTORIALS.push(LN_FACTORIALS[i - 1]! + Math.log(i));
  return LN_FACTORIALS[n]!;
}

/**
 * The fewest pieces to scrub so that, with so many of them lost, at most a share of all is, nine times in ten; null where not even scrubbing
 * all of a lot would say so, or none of 100 000.
 * @throws value.out-of-range for a share outside 0–1
 */
export function sampleFor(share: number, lot: number | null, lost = 0, sure: number = SAMPLE_SURE): number | null {
  requireWithin('share', share, 0, 1);
  const all = lot ?? MOST;
  const enough = (n: number) => mostLost({ scrubbed: n, lost }, lot, sure) <= share + 1e-12;
  if (lost > all || !enough(all)) return null;
  let [low, high] = [Math.max(1, lost), all];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

const MOST = 100_000;

/** A number of pieces to scrub and what none of them lost would say. */
export interface SamplePlan {
  readonly scrub: number;
  /** At most this share loses the mark, nine times in ten, when none of them does. */
  readonly mostLost: number;
}

/** Shares that a plan may be made for. */
const SHARES = [0.35, 0.2, 0.1, 0.05] as const;

/** Plans from few pieces to many, each saying more than the one before; a lot is never scrubbed whole while a smaller plan is left. */
export function samplePlans(lot: number | null): SamplePlan[] {
  const sizes = SHARES.map((share) => sampleFor(share, lot)).filter((size): size is number => size !== null);
  return [...new Set(sizes)].map((scrub) => ({ scrub, mostLost: mostLost({ scrubbed: scrub, lost: 0 }, lot) }));
}

/** Pieces to scrub, drawn at random among those that may be; those drawn before stay in it. */
export function drawPieces(
  among: readonly number[],
  scrub: number,
  { before, random }: { readonly before: readonly number[]; readonly random: Random },
): number[] {
  const left = among.filter((piece) => !before.includes(piece));
  return [...before, ...shuffled(left, random).slice(0, Math.max(0, scrub - before.length))].sort((a, b) => a - b);
}
