/** Changes that were made, by the request that asked for them: one sent again after a lost answer is answered, not made again. */
export const name = '0015-edits';

export const sql = `
CREATE TABLE edits (
  id uuid PRIMARY KEY,
  what_hash text NOT NULL,
  answer jsonb,
  at timestamptz NOT NULL
);
CREATE INDEX edits_at ON edits (at);
`;
