import { CoreError, type CoreErrorCode } from '@unto/core';
import type {
  CellOutcomes,
  CellPrediction,
  CouponBench,
  CouponDesign,
  CouponLayout,
  CouponLimits,
  GcodeOptions,
  SettingAnswer,
  SettingJob,
  WindowBench,
  WindowCell,
  WindowFit,
  WindowMap,
} from '@unto/core';

/** An answer of the worker: the value, or the core's refusal with its code. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly code: CoreErrorCode;
      readonly message: string;
      readonly path?: string | undefined;
      readonly line?: number | undefined;
    };

export interface DesignedCoupon {
  readonly layout: CouponLayout;
  readonly predictions: readonly CellPrediction[];
  readonly runTimeS: number;
  /** Room the fastest row needs beside the cells to come up to speed, mm. */
  readonly runUpMm: number;
}

/** A fitted window ready to be drawn. */
export interface DrawnWindow {
  readonly fit: WindowFit;
  readonly map: WindowMap;
  readonly answer: SettingAnswer;
}

/** Everything the worker computes. */
export interface Computations {
  design(task: { design: CouponDesign; limits: CouponLimits; bench: CouponBench }): Promise<Answer<DesignedCoupon>>;
  program(task: { layout: CouponLayout; options: GcodeOptions }): Promise<Answer<string>>;
  drawing(layout: CouponLayout): Promise<Answer<string>>;
  table(task: {
    layout: CouponLayout;
    predictions: readonly CellPrediction[];
    outcomes: readonly CellOutcomes[];
  }): Promise<Answer<string>>;
  readTable(task: { text: string; layout: CouponLayout }): Promise<Answer<CellOutcomes[]>>;
  window(task: {
    cells: readonly WindowCell[];
    bench: WindowBench;
    seed: number;
    job: SettingJob;
    map: { powersW: readonly number[]; speedsMmPerS: readonly number[]; intervalMm: number; passes: number };
  }): Promise<Answer<DrawnWindow>>;
}

/** Runs a piece of the core and keeps its refusal's code across the worker's border. */
export function answered<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const { code, message, path, line } = error;
    return { ok: false, code, message, path, line };
  }
}

/** The value of an answer. @throws CoreError when it was refused */
export function valueOf<T>(answer: Answer<T>): T {
  if (answer.ok) return answer.value;
  throw new CoreError(answer.code, answer.message, {
    ...(answer.path ? { path: answer.path } : {}),
    ...(answer.line ? { line: answer.line } : {}),
  });
}
