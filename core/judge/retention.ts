/** How well a contrast ΔL* is read, one standard deviation: by the camera against the card, and by eye on the printed step scale. */
export const READ_WITHIN = { picture: 0.8, eye: 4 } as const;
export type ReadBy = keyof typeof READ_WITHIN;

/** A share with its 95 % interval; `high` is null where it has no upper end. */
export interface Retention {
  readonly share: number;
  readonly low: number;
  readonly high: number | null;
}

/**
 * Share of the contrast that is left, after ÷ before, both ΔL* read with the same error; its 95 % interval by Fieller's theorem (1954) for the
 * ratio of two independent normal readings.
 * @returns null where the contrast before cannot be told from none: the ratio is then anything
 */
export function contrastLeft(before: number, after: number, readBy: ReadBy): Retention | null {
  const [a, b] = [Math.abs(before), Math.sign(before || 1) * after];
  const variance = READ_WITHIN[readBy] ** 2;
  const z2 = 1.959964 ** 2;
  // Roots in r of (b − r·a)² = z²·σ²·(1 + r²).
  const lead = a * a - z2 * variance;
  if (lead <= 0) return null;
  const inside = (a * b) ** 2 - lead * (b * b - z2 * variance);
  const half = Math.sqrt(Math.max(0, inside)) / lead;
  const middle = (a * b) / lead;
  return { share: b / a, low: Math.max(0, middle - half), high: middle + half };
}
