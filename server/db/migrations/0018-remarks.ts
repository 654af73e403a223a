/** Notes and pictures beside a ticket or one of its runs; taken out of sight by a mark on them, never lost. */
export const name = '0018-remarks';

export const sql = `
CREATE TABLE remarks (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  run_id uuid REFERENCES runs (id),
  words text NOT NULL,
  file_hash text REFERENCES stored_files (hash),
  shows text,
  retired boolean NOT NULL DEFAULT false,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id),
  sequence bigint NOT NULL DEFAULT nextval('happened')
);
CREATE INDEX remarks_of_ticket ON remarks (ticket_id, sequence);
`;
