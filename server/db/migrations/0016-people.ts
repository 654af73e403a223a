/** People are renamed, and leave: what they did keeps them, and nobody picks them any more. */
export const name = '0016-people';

export const sql = `
ALTER TABLE operators
  ADD COLUMN version integer NOT NULL DEFAULT 1,
  ADD COLUMN retired boolean NOT NULL DEFAULT false;
`;
