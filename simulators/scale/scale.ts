import { GRAMS_PER_OUNCE, standardNormal, type Random } from '@unto/core';
import type { ScaleReading, ScaleScene } from '@unto/contract';
import { BENCH_TECHNIQUE, layCoat, type LaidCoat } from '../ground-truth/spray-technique.js';

/** What can be wrong with a scale. */
export const SCALE_FAULTS = ['none', 'unsteady', 'below nought', 'in ounces', 'unplugged'] as const;
export type ScaleFault = (typeof SCALE_FAULTS)[number];

/** A bench scale of 0.01 g that settles on its third look, with whatever the scene names on its pan. */
export class SimulatedScale {
  fault: ScaleFault = 'none';
  private readonly masses = new Map<string, number>();
  private readonly coats = new Map<string, LaidCoat>();
  private looks = 0;
  private shown = '';
  private scene: ScaleScene | null = null;

  constructor(private readonly random: Random) {}

  /** Puts something on the pan. */
  put(scene: ScaleScene): void {
    this.scene = scene;
  }

  /** One look at the display; null when it is unplugged. */
  weigh(): ScaleReading | null {
    if (this.fault === 'unplugged') return null;
    const grams = this.scene ? this.onPan(this.scene) : 0;
    const name = this.scene ? `${this.scene.key} ${this.scene.moment}` : '';
    this.looks = name === this.shown ? this.looks + 1 : 0;
    this.shown = name;
    const stable = this.fault !== 'unsteady' && this.looks >= 2;
    const wobble = stable ? 0 : 0.4 * standardNormal(this.random);
    const shown = (this.fault === 'below nought' ? -3.2 : grams) + wobble;
    return this.fault === 'in ounces'
      ? { value: round(shown / GRAMS_PER_OUNCE, 4), unit: 'oz', stable }
      : { value: round(shown, 2), unit: 'g', stable };
  }

  /** Film of a coat that was weighed here, as a multiple of what was meant; 1 for one that was not. */
  filmOf(batch: string): number {
    return this.coats.get(batch)?.film ?? 1;
  }

  private onPan(scene: ScaleScene): number {
    const parts = scene.key.startsWith('parts');
    if (scene.moment === 'before') {
      this.masses.set(scene.key, scene.lastKnownG);
      if (!parts) this.coats.delete(scene.batch);
      return scene.lastKnownG;
    }
    const before = this.masses.get(scene.key) ?? scene.lastKnownG;
    const coat = this.coats.get(scene.batch) ?? layCoat(BENCH_TECHNIQUE, scene, this.random);
    this.coats.set(scene.batch, coat);
    const after = parts ? before + coat.dryG : before - coat.massAppliedG;
    return Math.max(0, after);
  }
}

function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}
