import { decisive, supporting, type FigureInput, type Grade, type Interval, type RecordRef } from './figure.js';

/**
 * By how much values may be off that nobody has said: nine times in ten the true one lies between the value ÷ factor and the value ×
 * factor, factor above 1. A value that is not named here is taken at somebody's word.
 */
export type UsualFactors<Field extends string> = Readonly<Partial<Record<Field, number>>>;

/** A value as an input of a figure: at somebody's word it supports, as no more than usual it decides the grade. */
export function saidOrUsual(
  label: string,
  factor: number | undefined,
  rest: { value?: number | string | undefined; unit?: string | undefined; ref?: RecordRef | undefined } = {},
): FigureInput {
  return factor === undefined ? supporting(label, 'stated', rest) : { ...decisive(label, 'usual', rest), factor };
}

/** A value that decides a figure either way: of its own grade at somebody's word, or as no more than usual. */
export function decidingOrUsual(
  label: string,
  grade: Grade,
  factor: number | undefined,
  rest: { value?: number | string | undefined; unit?: string | undefined; ref?: RecordRef | undefined } = {},
): FigureInput {
  return factor === undefined ? decisive(label, grade, rest) : saidOrUsual(label, factor, rest);
}

/** Between which bounds a value lies that is no more than usual; undefined for one that somebody said, or that is nought. */
export function usualInterval(value: number, factor: number | undefined): Interval | undefined {
  return factor !== undefined && value > 0 ? widened(value, { low: value, high: value }, [factor]) : undefined;
}

/**
 * The interval of a product whose factors are independent, each as far off in its logarithm as its own interval or factor says: the
 * squares of the logarithms add. A value and bounds above 0; without any factor the bounds stay.
 * @param bounds of the value as far as it is known without them
 * @example widened(10, { low: 10, high: 10 }, [2]) // { low: 5, high: 20, level: 0.9 }
 */
export function widened(
  value: number,
  bounds: { readonly low: number; readonly high: number },
  factors: readonly (number | undefined)[],
): Interval {
  const squares = factors.reduce<number>((sum, factor) => sum + Math.log(factor ?? 1) ** 2, 0);
  const away = (bound: number) => Math.exp(Math.hypot(Math.log(bound / value), Math.sqrt(squares)));
  return { low: value / away(bounds.low), high: value * away(bounds.high), level: 0.9 };
}
