import fc from 'fast-check';
import { mixed, type Schema, type SchemaDescription } from 'yup';
import { COAT_ENTRIES, INVENTORY_BODIES, PLACE_ENTRIES, type Route } from '../index.js';

type Inner = Schema & { innerType?: Schema; fields?: Record<string, Schema>; spec: { types?: Schema[] | object } };

/** Identifiers and hashes that there are, so that what is sent refers to something. */
export interface Known {
  readonly ids: readonly string[];
  readonly hashes: readonly string[];
  /** A body that a route takes, by the route’s name. */
  readonly samples: Readonly<Record<string, object>>;
}

/** What a field of a known kind holds, by the name of the kind's field beside it. */
const BY_KIND: Readonly<Record<string, Readonly<Record<string, Schema>>>> = {
  createInventoryItem: INVENTORY_BODIES,
  reviseInventoryItem: INVENTORY_BODIES,
  createPlaceReading: PLACE_ENTRIES,
  createCoatReading: COAT_ENTRIES,
};

/** Bodies for a route: of its schema's shape with figures up to both ends, mostly with one thing in them made hostile. */
export function bodies(name: string, { body }: Route, known: Known): fc.Arbitrary<unknown> {
  if (!body) return fc.constantFrom(undefined, {}, [], { a: 1 });
  const shaped = shapedBy(name, body, known);
  const spoilt = fc.tuple(shaped, fc.nat(), HOSTILE).map(([good, at, bad]) => spoiltAt(good, at, bad));
  const sample = known.samples[name];
  const bent = fc
    .tuple(fc.uuid(), fc.array(fc.tuple(fc.nat(), fc.oneof(EXTREME, EXTREME, HOSTILE)), { minLength: 1, maxLength: 2 }))
    .map(([id, places]) => places.reduce<unknown>((good, [at, bad]) => spoiltAt(good, at, bad), { ...sample, id }));
  return fc.oneof(
    { weight: sample ? 6 : 0, arbitrary: bent },
    { weight: 3, arbitrary: shaped },
    { weight: 2, arbitrary: spoilt },
    { weight: 1, arbitrary: HOSTILE },
  );
}

function shapedBy(name: string, body: Schema, known: Known): fc.Arbitrary<unknown> {
  const kinds = BY_KIND[name];
  if (!kinds) return valueOf(body, known);
  const one = (kind: string, inner: Schema) =>
    fc.record({ whole: valueOf(body, known), inner: valueOf(inner, known) }).map(({ whole, inner: value }) => {
      const entry = Object(whole) as Record<string, unknown>;
      return { ...entry, ...('kind' in entry ? { kind } : {}), ['body' in entry ? 'body' : 'entries']: value };
    });
  return fc.oneof(...Object.entries(kinds).map(([kind, inner]) => one(kind, inner)));
}

/** Values of a schema: what it takes, up to its ends. */
export function valueOf(schema: Schema, known: Known): fc.Arbitrary<unknown> {
  const described = schema.describe() as SchemaDescription;
  const plain = described.oneOf.length
    ? fc.constantFrom(...described.oneOf)
    : unboundValue(schema as Inner, described, known);
  const none = [...(described.nullable ? [null] : []), ...(described.optional ? [undefined] : [])];
  return none.length
    ? fc.oneof({ weight: 4, arbitrary: plain }, { weight: 1, arbitrary: fc.constantFrom(...none) })
    : plain;
}

function unboundValue(schema: Inner, described: SchemaDescription, known: Known): fc.Arbitrary<unknown> {
  const param = (name: string) =>
    described.tests.find((test) => test.name === name)?.params?.[name] as number | undefined;
  switch (described.type) {
    case 'number':
      return numbers(
        param('min') ?? -1e6,
        param('max') ?? 1e6,
        described.tests.some(({ name }) => name === 'integer'),
      );
    case 'boolean':
      return fc.boolean();
    case 'string':
      return strings(schema, known);
    case 'array': {
      const length = param('length');
      const limits = { minLength: length ?? param('min') ?? 0, maxLength: Math.min(length ?? param('max') ?? 5, 6) };
      return fc.array(valueOf(schema.innerType ?? mixed(), known), {
        ...limits,
        maxLength: Math.max(limits.maxLength, limits.minLength),
      });
    }
    case 'tuple':
      return fc.tuple(...(schema.spec.types as Schema[]).map((type) => valueOf(type, known)));
    case 'object':
      return fc.record(
        Object.fromEntries(Object.entries(schema.fields ?? {}).map(([key, field]) => [key, valueOf(field, known)])),
      );
    default:
      return HOSTILE;
  }
}

function numbers(min: number, max: number, whole: boolean): fc.Arbitrary<number> {
  if (whole) {
    const [low, high] = [Math.ceil(min), Math.floor(max)];
    return fc.oneof(fc.integer({ min: low, max: Math.min(high, low + 12) }), fc.constantFrom(low, high));
  }
  // As many small as large: the ends matter more than the middle.
  const usual = fc
    .double({ min: -5, max: 4, noNaN: true })
    .map((exponent) => Math.min(max, Math.max(min, 10 ** exponent)));
  return fc.oneof(usual, fc.constantFrom(min, max, Math.min(max, Math.max(min, 1)), Math.max(min, Math.min(max, 0))));
}

const DAYS = ['2026-03-01', '1900-01-01', '2199-12-31'];

function strings(schema: Schema, known: Known): fc.Arbitrary<string> {
  const may = (value: string) => schema.isValidSync(value, { strict: true });
  const from = [known.ids, known.hashes, DAYS, ['Europe/Berlin', 'UTC'], ['EUR', 'JPY']].find(
    ([sample]) => sample !== undefined && may(sample),
  );
  const free = may('any words') ? [fc.string({ maxLength: 12 }).filter(may), fc.constantFrom('x', 'µ – 𝄞')] : [];
  return fc.oneof(
    ...(from ? [fc.constantFrom(...from)] : []),
    ...(free.length ? free : from ? [] : [fc.string({ maxLength: 5 })]),
  );
}

// Deeper than any body; one may come to stand in another, and the sender must still be able to write it out.
let nested: unknown = 1;
for (let i = 0; i < 1000; i += 1) nested = [nested];

/** Figures at the ends of what is taken. */
const EXTREME = fc.constantFrom(0, 0.001, 0.01, 0.5, 1, 2, 99, 400, 1000, 4000, 20_000, 100_000, -0.001, -20_000);

/** What no sender means. */
const HOSTILE: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(null, true, 0, -1, 1e308, -1e308, 5e-324, '', [], {}, [[]], [null], nested),
  fc.constantFrom<unknown>(
    '\u0000',
    'a\u0000b',
    '\ud800',
    '%00',
    '2026-02-30',
    'NaN',
    '1e999',
    'x'.repeat(5000),
    "'; DROP TABLE runs; --",
  ),
  fc.constantFrom<unknown>(
    { __proto__: null, constructor: 1 },
    JSON.parse('{"__proto__":{"x":1}}'),
    Array(2000).fill('x'),
    { length: 1e9 },
  ),
  fc.jsonValue({ maxDepth: 3 }),
);

/** The value with one of its places, counted through, set to something else. */
function spoiltAt(value: unknown, at: number, bad: unknown): unknown {
  const copy = structuredClone(value);
  const places: (readonly [Record<string, unknown>, string])[] = [];
  const visit = (one: unknown) => {
    if (typeof one !== 'object' || one === null) return;
    for (const key of Object.keys(one)) {
      places.push([one as Record<string, unknown>, key]);
      visit((one as Record<string, unknown>)[key]);
    }
  };
  visit(copy);
  const place = places[at % Math.max(1, places.length)];
  if (!place) return bad;
  place[0][place[1]] = bad;
  return copy;
}
