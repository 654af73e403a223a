/** Coats read by comb and eye, stored coats, strokes counted, mixes past their time. */
export const name = '0004-coating';

export const sql = `
ALTER TABLE weighings ADD COLUMN strokes integer CHECK (strokes > 0);
ALTER TABLE weighings ADD COLUMN after_pot_life boolean NOT NULL DEFAULT false;

CREATE TABLE coat_readings (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  compound_id uuid NOT NULL REFERENCES store_items (id),
  compound_revision_id uuid NOT NULL REFERENCES store_revisions (id),
  weighing_id uuid REFERENCES weighings (id),
  kind text NOT NULL CHECK (kind IN ('comb', 'looks')),
  entries jsonb NOT NULL,
  film jsonb NOT NULL,
  findings jsonb NOT NULL,
  note text NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX coat_readings_ticket ON coat_readings (ticket_id, at);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON coat_readings FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE stored_coats (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  compound_id uuid NOT NULL REFERENCES store_items (id),
  compound_revision_id uuid NOT NULL REFERENCES store_revisions (id),
  pieces integer NOT NULL CHECK (pieces > 0),
  place text NOT NULL,
  note text NOT NULL,
  handling text NOT NULL,
  stored_at timestamptz NOT NULL,
  keep_until timestamptz CHECK (keep_until >= stored_at),
  by_id uuid NOT NULL REFERENCES operators (id),
  ended_at timestamptz CHECK (ended_at >= stored_at),
  outcome text CHECK (outcome IN ('taken up', 'rinsed off')),
  end_reason text NOT NULL DEFAULT '',
  ended_by_id uuid REFERENCES operators (id),
  CHECK ((ended_at IS NULL) = (outcome IS NULL))
);
CREATE INDEX stored_coats_open ON stored_coats (ticket_id) WHERE ended_at IS NULL;
`;
