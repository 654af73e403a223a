/** A column of a list: what it is called, what of a row it shows, sorts and saves by. */
export interface ListColumn<Row> {
  readonly key: string;
  readonly label: string;
  readonly value: (row: Row) => string | number | null;
  readonly unit?: string | undefined;
  readonly numeric?: boolean | undefined;
}
