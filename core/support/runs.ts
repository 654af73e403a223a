/** Runs of what is true in a row: first index, and one past the last. */
export function runsOf(row: readonly boolean[]): [from: number, to: number][] {
  const runs: [number, number][] = [];
  row.forEach((on, i) => {
    const last = runs[runs.length - 1];
    if (on && last?.[1] === i) last[1] = i + 1;
    else if (on) runs.push([i, i + 1]);
  });
  return runs;
}
