import { createHash } from 'node:crypto';

/**
 * A piece of pure work whose results are remembered by what they were worked out from: the same again costs no more than to look.
 * @param most results that are kept; the longest not asked for go first
 * What is awaited and then refused is not remembered.
 * @param work must depend on its input alone, which is plain data; nobody may change what it answers
 * @param dataOf the plain data of an input that holds more
 */
export function remembered<Input extends object, Output>(
  most: number,
  work: (input: Input) => Output,
  dataOf: (input: Input) => object = (input) => input,
): (input: Input) => Output {
  const known = new Map<string, Output>();
  return (input) => {
    const key = createHash('sha256')
      .update(JSON.stringify(dataOf(input)))
      .digest('base64');
    const found = known.has(key) ? (known.get(key) as Output) : work(input);
    known.delete(key);
    known.set(key, found);
    if (found instanceof Promise) found.catch(() => known.delete(key));
    if (known.size > most) known.delete(known.keys().next().value!);
    return found;
  };
}
