import { describe, expect, it } from 'vitest';
import type { Schema, SchemaDescription } from 'yup';
import {
  COAT_ENTRIES,
  createFitting,
  createRecipe,
  day,
  dayOrMoment,
  enteredInterval,
  INVENTORY_BODIES,
  isWritten,
  moment,
  note,
  PLACE_ENTRIES,
  positive,
  ROUTES,
  text,
  tooManyIn,
  unfitIn,
  type Route,
} from './index.js';

type Inner = Schema & { innerType?: Schema; fields?: Record<string, Schema>; spec: { types?: Schema[] | object } };

/** Places of a schema where a number, a text or a list has no end. */
function endless(schema: Schema, path: string): string[] {
  const { innerType, fields, spec } = schema as Inner;
  const described = schema.describe() as SchemaDescription;
  const has = (...names: string[]) => described.tests.some(({ name }) => names.includes(name ?? ''));
  const meta = described.meta as { alternatives?: Schema[]; values?: Schema } | undefined;
  const within = [
    ...(innerType ? [[innerType, `${path}[]`] as const] : []),
    ...Object.entries(fields ?? {}).map(([key, field]) => [field, `${path}.${key}`] as const),
    ...(Array.isArray(spec.types) ? spec.types : []).map((type, i) => [type, `${path}[${i}]`] as const),
    ...(meta?.alternatives ?? []).map((one, i) => [one, `${path}|${i}`] as const),
    ...(meta?.values ? [[meta.values, `${path}{}`] as const] : []),
  ].flatMap(([inner, at]) => endless(inner, at));
  const ends = {
    number: has('min') && has('max'),
    string: described.oneOf.length > 0 || has('max', 'matches', 'length'),
    array: has('max', 'length') && innerType !== undefined,
    object: has('noUnknown'),
  }[described.type as 'number'];
  return ends === false ? [path, ...within] : within;
}

describe('what may be sent', () => {
  it('has an end: every number a least and a most, every text a length, every list a most, every record its fields', () => {
    const bodies = Object.entries<Route>(ROUTES).flatMap(([name, { body }]) => (body ? [[name, body] as const] : []));
    const kinds = [INVENTORY_BODIES, PLACE_ENTRIES, COAT_ENTRIES].flatMap((of) => Object.entries<Schema>(of));
    expect([...bodies, ...kinds].flatMap(([name, schema]) => endless(schema, name))).toEqual([]);
    const queries = Object.entries<Route>(ROUTES).flatMap(([name, { query }]) =>
      query ? [[name, query] as const] : [],
    );
    const open = queries.flatMap(([name, schema]) => endless(schema, name));
    // A query may carry fields that nobody reads.
    expect(open.filter((path) => path.includes('.'))).toEqual([]);
    expect(bodies.length).toBeGreaterThan(30);
  });

  it('is written with characters that can be shown', () => {
    for (const good of ['', 'µm – 𝄞', 'two\nlines\tand a tab', 'é', '\u202fthin'])
      expect([good, isWritten(good)]).toEqual([good, true]);
    for (const bad of ['\u0000', 'a\u0007', '\ud800', 'x\udc00y', '\u007f', '\uffff'])
      expect([bad, isWritten(bad)]).toEqual([bad, false]);
    expect(() => text('Name').validateSync('a\u0000b')).toThrow('Name holds characters that cannot be written');
    expect(() => note('Note').validateSync('\ud800')).toThrow('Note holds characters');
  });

  it('names days that there are', () => {
    for (const good of ['2024-02-29', '1999-12-31', '2026-11-30']) expect(day('Day').isValidSync(good)).toBe(true);
    for (const bad of [
      '2026-02-30',
      '2025-02-29',
      '2026-13-01',
      '2026-04-31',
      '0001-01-01',
      '9999-01-01',
      ' 2026-01-01',
    ])
      expect([bad, day('Day').isValidSync(bad)]).toEqual([bad, false]);
    for (const good of ['2026-03-01T09:00:00Z', '2026-03-01T09:00:00.123Z', '2026-03-01T09:00+02:00'])
      expect([moment('At').isValidSync(good), dayOrMoment('At').isValidSync(good)]).toEqual([true, true]);
    for (const bad of ['1', '2026-02-30T09:00:00Z', '2026-03-01', 'now', '2026-03-01T25:00:00Z', '2026-03-01T09:00:00'])
      expect([bad, moment('At').isValidSync(bad)]).toEqual([bad, false]);
  });

  it('is a size that there is', () => {
    expect(() => positive('Width', 'mm').validateSync(1e-7)).toThrow('Width must be at least 0.001 mm.');
    expect(() => positive('Width', 'mm').validateSync(1e100)).toThrow('Width must be at most 20000 mm.');
    expect(() => positive('Width', 'mm').validateSync(0)).toThrow('Width must be above 0.');
    expect(() => positive('Width', 'mm').max(2000, 'Two metres.').validateSync(3000)).toThrow('Two metres.');
    expect(enteredInterval().isValidSync({ value: 340, unit: 'lines/in' })).toBe(true);
    for (const bad of [
      { value: 1e-6, unit: 'mm' },
      { value: 26_000, unit: 'lines/in' },
    ])
      expect(() => enteredInterval().validateSync(bad)).toThrow('Interval must be from 0.001 to 20000 mm.');
  });
});

describe('what no schema needs to look at', () => {
  it('is refused by its depth, its numbers and its characters, with the place', () => {
    let deep: unknown = 1;
    for (let i = 0; i < 100_000; i += 1) deep = [deep];
    expect(unfitIn({ a: deep })?.message).toBe('It is nested more than 24 deep.');
    expect(unfitIn({ a: [1, { b: Number.POSITIVE_INFINITY }] })?.path).toBe('a.1.b');
    expect(unfitIn({ a: { 'b\u0000': 1 } })?.path).toBe('a');
    expect(unfitIn({ a: 'c\ud800' })?.path).toBe('a');
    expect(unfitIn({ a: [null, true, 'µ', 1e300] })).toBeNull();
  });

  it('is refused by how many there are, before any is looked at', () => {
    const ids = Array.from({ length: 300_000 }, () => 'x');
    const begun = performance.now();
    expect(tooManyIn(createRecipe, { couponIds: ids })).toMatchObject({ path: 'couponIds' });
    expect(tooManyIn(createFitting, { steps: ids })).toMatchObject({ path: 'steps' });
    expect(tooManyIn(ROUTES.createInventoryItem.body, { body: { sizes: ids } })).toMatchObject({ path: 'body.sizes' });
    expect(tooManyIn(createRecipe, Object.fromEntries(ids.map((_, i) => [`k${i}`, 1])))?.message).toMatch(
      /fields too many/,
    );
    expect(performance.now() - begun).toBeLessThan(2000);
    expect(tooManyIn(createRecipe, { couponIds: ['x'], surprise: 1 })).toBeNull();
  });
});
