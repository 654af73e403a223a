import { CoreError } from './core-error.js';

/** Returns `value` when it is a finite number. @throws value.not-finite */
export function requireFinite(name: string, value: number): number {
  if (typeof value !== 'number' || !Number.isFinite(value)) {
    throw new CoreError('value.not-finite', `${name} must be a number.`, { path: name });
  }
  return value;
}

/** Returns `value` when it is finite and above 0. @throws value.not-finite, value.not-positive */
export function requirePositive(name: string, value: number): number {
  if (requireFinite(name, value) <= 0) {
    throw new CoreError('value.not-positive', `${name} must be above 0; it is ${value}.`, {
      path: name,
    });
  }
  return value;
}

/** Returns `value` when it is finite and 0 or more. @throws value.not-finite, value.negative */
export function requireNotNegative(name: string, value: number): number {
  if (requireFinite(name, value) < 0) {
    throw new CoreError('value.negative', `${name} cannot be negative; it is ${value}.`, {
      path: name,
    });
  }
  return value;
}

/** Returns `value` when low ≤ value ≤ high. @throws value.not-finite, value.out-of-range */
export function requireWithin(name: string, value: number, low: number, high: number): number {
  requireFinite(name, value);
  if (value < low || value > high) {
    throw new CoreError('value.out-of-range', `${name} must lie between ${low} and ${high}; it is ${value}.`, {
      path: name,
    });
  }
  return value;
}
