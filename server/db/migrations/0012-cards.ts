/** What the prints of the shop's reference cards throw back. */
export const name = '0012-cards';

export const sql = `
CREATE TABLE cards (
  id uuid PRIMARY KEY,
  size text NOT NULL CHECK (size IN ('A5', 'A4')),
  print jsonb NOT NULL,
  white double precision,
  file_hash text,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX cards_size ON cards (size, at);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON cards FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
