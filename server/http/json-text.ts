/** An answer that is JSON already: the database put it together, and nobody here looks into it. */
export class JsonText<T> {
  /** What it would be if somebody did. */
  declare readonly of: T;
  constructor(readonly text: string) {}
}
