/**
 * What pieces stand, and where a fault lies on one: a test with what it is to be, how dark the mark was before, when it is to be looked at, and every look at it since. How a run's
 * rinse water went and where residue was left. What was decided on a ticket's pieces, by whom.
 */
export const name = '0024-durability';

export const sql = `
CREATE TABLE durability_tests (
  id uuid PRIMARY KEY,
  run_id uuid NOT NULL REFERENCES runs (id),
  piece integer NOT NULL CHECK (piece > 0),
  protocol text NOT NULL,
  dose integer NOT NULL CHECK (dose > 0),
  before_contrast double precision,
  read_by text CHECK (read_by IN ('picture', 'eye')),
  due_on date,
  note text NOT NULL DEFAULT '',
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX durability_tests_run ON durability_tests (run_id, sequence);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON durability_tests FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE durability_looks (
  id uuid PRIMARY KEY,
  test_id uuid NOT NULL REFERENCES durability_tests (id),
  dose_done integer NOT NULL CHECK (dose_done > 0),
  result text NOT NULL CHECK (result IN ('no change', 'slightly paler', 'lost')),
  after_contrast double precision,
  next_on date,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX durability_looks_test ON durability_looks (test_id, sequence);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON durability_looks FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE piece_faults (
  id uuid PRIMARY KEY,
  run_id uuid NOT NULL REFERENCES runs (id),
  piece integer NOT NULL CHECK (piece > 0),
  fault text,
  spot jsonb,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX piece_faults_run ON piece_faults (run_id, sequence);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON piece_faults FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE verdicts (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  verdict text NOT NULL CHECK (verdict IN ('hand over', 'hand over with exceptions', 'rework')),
  exceptions text NOT NULL DEFAULT '',
  grade text NOT NULL,
  good integer NOT NULL,
  pieces integer NOT NULL,
  below_proved boolean NOT NULL,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX verdicts_ticket ON verdicts (ticket_id, sequence DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON verdicts FOR EACH ROW EXECUTE FUNCTION refuse_change();

ALTER TABLE cleanings ADD COLUMN residue_at text;
ALTER TABLE cleanings ADD COLUMN rinse_water text CHECK (rinse_water IN ('collected', 'down the drain'));
`;
