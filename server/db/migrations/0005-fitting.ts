/** Heads and lenses as they were fitted; alignments, pointer offsets and set-ups of the Place station; sheets kept with their ticket. */
export const name = '0005-fitting';

export const sql = `
ALTER TABLE place_readings DROP CONSTRAINT place_readings_kind_check;
ALTER TABLE place_readings ADD CONSTRAINT place_readings_kind_check
  CHECK (kind IN ('focus', 'flatness', 'centre', 'round', 'align', 'pointer', 'set'));
CREATE INDEX place_readings_head ON place_readings (head_id, at DESC) WHERE kind = 'pointer';

CREATE TABLE fittings (
  id uuid PRIMARY KEY,
  machine_id uuid NOT NULL REFERENCES store_items (id),
  head_id uuid NOT NULL REFERENCES store_items (id),
  lens_id uuid NOT NULL REFERENCES store_items (id),
  ticket_id uuid REFERENCES tickets (id),
  work text NOT NULL CHECK (work IN ('mark', 'cut')),
  steps jsonb NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX fittings_machine ON fittings (machine_id, at DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON fittings FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE sheets (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  entries jsonb NOT NULL,
  places integer NOT NULL CHECK (places > 0),
  left_out integer NOT NULL CHECK (left_out >= 0),
  used double precision NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX sheets_ticket ON sheets (ticket_id, at DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON sheets FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
