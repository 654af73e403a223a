/**
 * True when a point lies in the convex hull of others (any dimension): phase one of the simplex method on
 * Σ λᵢ pᵢ = x, Σ λᵢ = 1, λ ≥ 0, with Bland's rule against cycling. Directions in which all points agree are compared directly.
 * @example insideHull([0.5, 0.5], [[0, 0], [1, 0], [0, 1]]) // true
 */
export function insideHull(point: readonly number[], others: readonly (readonly number[])[], slack = 1e-7): boolean {
  if (others.length === 0) return false;
  const spans = point.map((_, k) => {
    const values = others.map((other) => other[k]!);
    return { low: Math.min(...values), high: Math.max(...values) };
  });
  const outside = point.some((value, k) => {
    const room = slack * (1 + Math.abs(value));
    return value < spans[k]!.low - room || value > spans[k]!.high + room;
  });
  if (outside) return false;
  const varied = spans.map((_, k) => k).filter((k) => spans[k]!.high > spans[k]!.low);
  if (varied.length === 0) return true;
  const scaled = (p: readonly number[]) =>
    varied.map((k) => (p[k]! - spans[k]!.low) / (spans[k]!.high - spans[k]!.low));
  return feasible(
    others.map((other) => [...scaled(other), 1]),
    [...scaled(point), 1],
    slack,
  );
}

/** Is target a non-negative combination of the columns? */
function feasible(columns: readonly (readonly number[])[], target: readonly number[], slack: number): boolean {
  const m = target.length;
  const n = columns.length;
  const rows = target.map((b, i) => {
    const sign = b < 0 ? -1 : 1;
    return [...columns.map((column) => sign * column[i]!), sign * b];
  });
  const basis = target.map((_, i) => n + i);
  const cost = Array.from({ length: n + 1 }, (_, j) => -rows.reduce((sum, row) => sum + row[j]!, 0));
  for (let guard = 0; guard < 50 * (n + m); guard += 1) {
    const entering = cost.findIndex((c, j) => j < n && c < -1e-10);
    if (entering < 0) break;
    const leaving = leavingRow(rows, basis, entering, n);
    if (leaving < 0) break;
    pivot(rows, cost, leaving, entering);
    basis[leaving] = entering;
  }
  return -cost[n]! < slack * m;
}

function leavingRow(rows: number[][], basis: number[], entering: number, n: number): number {
  let best = -1;
  let bestRatio = Infinity;
  rows.forEach((row, i) => {
    if (row[entering]! <= 1e-10) return;
    const ratio = row[n]! / row[entering]!;
    if (ratio < bestRatio - 1e-12 || (ratio < bestRatio + 1e-12 && basis[i]! < basis[best]!)) {
      best = i;
      bestRatio = ratio;
    }
  });
  return best;
}

function pivot(rows: number[][], cost: number[], leaving: number, entering: number): void {
  const lead = rows[leaving]!;
  const by = lead[entering]!;
  for (let j = 0; j < lead.length; j += 1) lead[j]! /= by;
  for (const row of [...rows, cost]) {
    if (row === lead) continue;
    const factor = row[entering]!;
    if (factor === 0) continue;
    for (let j = 0; j < row.length; j += 1) row[j]! -= factor * lead[j]!;
  }
}
