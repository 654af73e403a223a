import { mixed, type Schema } from 'yup';

/** Something of a request that no schema needs to look at to refuse it. */
export interface Unfit {
  readonly path: string;
  readonly message: string;
}

const DEEPEST = 24;
/** Where a schema sets no limit of its own: longer than every list that goes by its kind. */
const MOST_ENTRIES = 1000;
const MOST_FIELDS = 100;

const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffe\uffff]/;
/** A text without control characters other than tab and new line, and without half of a character. */
export const isWritten = (text: string): boolean => !CONTROL.test(text) && !/\p{Surrogate}/u.test(text);

/**
 * What makes a value unfit to be looked at more closely: nested more than 24 deep, a number that is none, text that cannot be written.
 * Walks without recursion, so that depth costs nothing.
 */
export function unfitIn(value: unknown): Unfit | null {
  const waiting: { value: unknown; path: string; depth: number }[] = [{ value, path: '', depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value: one, path, depth } = next;
    if (typeof one === 'number' && !Number.isFinite(one)) return { path, message: 'A number is out of all range.' };
    if (typeof one === 'string' && !isWritten(one))
      return { path, message: 'A text holds characters that cannot be written or shown.' };
    if (typeof one !== 'object' || one === null) continue;
    if (depth === DEEPEST) return { path, message: `It is nested more than ${DEEPEST} deep.` };
    for (const [key, inner] of Object.entries(one)) {
      if (!isWritten(key)) return { path, message: 'A field’s name holds characters that cannot be written or shown.' };
      waiting.push({ value: inner, path: path ? `${path}.${key}` : key, depth: depth + 1 });
    }
  }
  return null;
}

/** The first list or record of a value that holds more than its schema lets it, found before any entry is looked at. */
export function tooManyIn(schema: Schema, value: unknown, path = ''): Unfit | null {
  const inner = schema as Schema & { innerType?: Schema; fields?: Record<string, Schema> };
  if (Array.isArray(value)) {
    const most = mostOf(schema);
    if (value.length > most) return { path, message: `At most ${most} are taken here; there are ${value.length}.` };
    return firstOf(value.map((one, i) => () => tooManyIn(inner.innerType ?? mixed(), one, `${path}[${i}]`)));
  }
  if (typeof value !== 'object' || value === null) return null;
  const record = value as Record<string, unknown>;
  const extra = Object.keys(record).length - (inner.fields ? Object.keys(inner.fields).length : MOST_FIELDS);
  if (extra > 20) return { path, message: `There are ${extra} fields too many.` };
  // What goes by its kind (mixed) is checked against its own schema later: here no list in it is longer than any of ours.
  const fields = inner.fields ?? Object.fromEntries(Object.keys(record).map((key) => [key, mixed()]));
  return firstOf(
    Object.entries(fields).map(
      ([key, field]) =>
        () =>
          tooManyIn(field, record[key], path ? `${path}.${key}` : key),
    ),
  );
}

function firstOf(looks: readonly (() => Unfit | null)[]): Unfit | null {
  for (const look of looks) {
    const found = look();
    if (found) return found;
  }
  return null;
}

function mostOf(schema: Schema): number {
  for (const { name, params } of schema.describe().tests) {
    if (name === 'max') return Number(params?.['max']);
    if (name === 'length') return Number(params?.['length']);
  }
  return MOST_ENTRIES;
}
