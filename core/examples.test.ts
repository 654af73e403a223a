import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import * as core from './index.js';
import * as statistics from './statistics/index.js';

const HERE = import.meta.dirname;
/** A call and what it comes to, as a docstring shows it: `@example sag(45, 40) // 4.689`. */
const EXAMPLE = /@example (\w+\(.*\)[\w.[\]]*) \/\/ (.+?)(?: \*\/)?$/gm;

const sources = readdirSync(HERE, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts') && !/\.(test|d)\.ts$/.test(file))
  .map((file) => ({ file, text: readFileSync(join(HERE, file), 'utf8') }));
const examples = sources.flatMap(({ file, text }) =>
  [...text.matchAll(EXAMPLE)].map(([, call, result]) => ({ file, call: call!, result: result! })),
);
/** A public function with what stands over it. */
const FUNCTION = /(\/\*\*(?:(?!\*\/)[\s\S])*?\*\/\n)?export function\*? (\w+)([\s\S]*?\n\}\n)/g;
const functions = sources.flatMap(({ file, text }) =>
  [...text.matchAll(FUNCTION)].map(([, doc, name, body]) => ({ of: `${file}: ${name}`, doc: doc ?? '', body: body! })),
);

const known = { ...core, ...statistics };
const evaluated = (text: string): unknown =>
  new Function(...Object.keys(known), `return (${text});`)(...Object.values(known)) as unknown;

describe('examples in docstrings', () => {
  it('are many', () => expect(examples.length).toBeGreaterThan(35));

  it.each(examples)('$file: $call is $result', ({ call, result }) => {
    const [value, shown] = [evaluated(call), evaluated(result)];
    if (typeof shown !== 'number') return expect(value).toEqual(shown);
    // A number is right to the digits that are shown.
    const decimals = result.split('.')[1]?.length ?? 0;
    expect(Math.abs((value as number) - shown)).toBeLessThanOrEqual(0.5000001 * 10 ** -decimals);
  });
});

describe('docstrings', () => {
  it('stand over every public function', () => {
    expect(functions.length).toBeGreaterThan(200);
    expect(functions.filter(({ doc }) => !doc).map(({ of }) => of)).toEqual([]);
  });

  it('say what is thrown where something is', () => {
    const throwing = functions.filter(({ body }) =>
      /throw new CoreError|\brequire(Positive|NotNegative|Within|Finite)\(/.test(body),
    );
    expect(throwing.filter(({ doc }) => !doc.includes('@throws')).map(({ of }) => of)).toEqual([]);
  });
});
