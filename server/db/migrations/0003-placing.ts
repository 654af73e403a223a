/** Readings of the Place station. */
export const name = '0003-placing';

export const sql = `
CREATE TABLE place_readings (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  kind text NOT NULL CHECK (kind IN ('focus', 'flatness', 'centre', 'round')),
  head_id uuid NOT NULL REFERENCES store_items (id),
  lens_id uuid NOT NULL REFERENCES store_items (id),
  entries jsonb NOT NULL,
  result jsonb NOT NULL,
  decision text NOT NULL,
  note text NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX place_readings_ticket ON place_readings (ticket_id, at DESC);
CREATE INDEX place_readings_lens ON place_readings (lens_id, at DESC) WHERE kind = 'focus';
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON place_readings FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
