/** What tells this installation from any other: files are kept beside a database, and must not be swept by another one's. */
export const name = '0013-installation';

export const sql = `
CREATE TABLE installation (
  alone boolean PRIMARY KEY DEFAULT true CHECK (alone),
  id uuid NOT NULL
);
INSERT INTO installation (id) VALUES (gen_random_uuid());
`;
