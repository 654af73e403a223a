/**
 * Runs that are counted at the bench: what was set as they began, what was said of every piece, how the first one stood the scrub, which pieces
 * of a run were drawn to be scrubbed and what each stood. A run says where its minutes come from.
 */
export const name = '0022-markings';

export const sql = `
CREATE TABLE markings (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  recipe_id uuid REFERENCES recipes (id),
  pieces integer NOT NULL CHECK (pieces > 0),
  entered jsonb NOT NULL,
  revisions jsonb NOT NULL,
  open jsonb NOT NULL DEFAULT '[]',
  note text NOT NULL DEFAULT '',
  ended_at timestamptz,
  run_id uuid REFERENCES runs (id),
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE UNIQUE INDEX markings_open ON markings (ticket_id) WHERE ended_at IS NULL;
CREATE INDEX markings_ticket ON markings (ticket_id, sequence DESC);

CREATE TABLE piece_events (
  id uuid PRIMARY KEY,
  marking_id uuid NOT NULL REFERENCES markings (id),
  piece integer NOT NULL CHECK (piece > 0),
  what text NOT NULL CHECK (what IN ('done', 'set aside', 'taken back')),
  why text,
  spot jsonb,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX piece_events_marking ON piece_events (marking_id, sequence);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON piece_events FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE first_pieces (
  id uuid PRIMARY KEY,
  marking_id uuid NOT NULL REFERENCES markings (id),
  result text NOT NULL CHECK (result IN ('held', 'paler', 'lost', 'not scrubbed')),
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX first_pieces_marking ON first_pieces (marking_id, sequence DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON first_pieces FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE sample_draws (
  id uuid PRIMARY KEY,
  run_id uuid NOT NULL REFERENCES runs (id),
  scrub integer NOT NULL CHECK (scrub > 0),
  seed integer NOT NULL,
  pieces jsonb NOT NULL,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX sample_draws_run ON sample_draws (run_id, sequence DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON sample_draws FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE piece_checks (
  id uuid PRIMARY KEY,
  run_id uuid NOT NULL REFERENCES runs (id),
  piece integer NOT NULL CHECK (piece > 0),
  test text NOT NULL,
  strokes integer,
  result text NOT NULL,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX piece_checks_run ON piece_checks (run_id, sequence);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON piece_checks FOR EACH ROW EXECUTE FUNCTION refuse_change();

ALTER TABLE runs
  ADD COLUMN minutes_from text NOT NULL DEFAULT 'typed' CHECK (minutes_from IN ('typed', 'counted', 'planned'));
`;
