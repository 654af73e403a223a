/** Words as options of a choice, each under its own name. */
export function choicesOf<T extends string>(words: readonly T[]): { value: T; label: T }[] {
  return words.map((word) => ({ value: word, label: word }));
}
