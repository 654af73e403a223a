/** “3, 7-9” as 3, 7, 8, 9: numbers and ranges of pieces in the order they are said, each once. Null where it says none. */
export function pieceNumbers(text: string): number[] | null {
  if (!/^\s*\d{1,4}(\s*-\s*\d{1,4})?(\s*,\s*\d{1,4}(\s*-\s*\d{1,4})?)*\s*$/.test(text)) return null;
  const numbers = text.split(',').flatMap((part) => {
    const [first, last = first] = part.split('-').map(Number) as [number, number?];
    return Array.from({ length: Math.max(0, last! - first + 1) }, (_, i) => first + i);
  });
  return numbers.length && numbers.every((number) => number > 0) ? [...new Set(numbers)] : null;
}

/** Numbers of pieces as they are said: “25-48”. */
export function numbersText(numbers: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs.at(-1);
    if (last && number === last[1] + 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs.map(([from, to]) => (from === to ? String(from) : `${from}-${to}`)).join(',');
}

/** Numbers on the ticket of the pieces of a run, in the order they are counted: as said, else from 1 on. */
export function markedNumbers({
  numbers,
  pieces,
}: {
  readonly numbers?: string | null | undefined;
  readonly pieces: number;
}): number[] {
  return (numbers ? pieceNumbers(numbers) : null) ?? Array.from({ length: pieces }, (_, i) => i + 1);
}
