/**
 * Faults that are looked for, on a run, a coupon or a coat: what the record said then, what it looked like, what tests showed, what it was and what
 * was changed. Pieces made anew, and the runs that did it. Questions asked at a station since. What was done to keep heads and lenses as they were.
 * How the air is to stand over a compound.
 */
export const name = '0026-faults';

const kept = (table: string) =>
  `CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON ${table} FOR EACH ROW EXECUTE FUNCTION refuse_change();`;
const said = `
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)`;

export const sql = `
CREATE TABLE fault_cases (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  kind text NOT NULL CHECK (kind IN ('run', 'coupon', 'coat')),
  run_id uuid REFERENCES runs (id),
  coupon_id uuid REFERENCES coupons (id),
  coat_id uuid REFERENCES coat_pictures (id),
  pieces jsonb NOT NULL,
  record jsonb NOT NULL,${said},
  CONSTRAINT fault_of_one CHECK (
    (run_id IS NOT NULL) = (kind = 'run') AND (coupon_id IS NOT NULL) = (kind = 'coupon') AND (coat_id IS NOT NULL) = (kind = 'coat'))
);
CREATE INDEX fault_cases_ticket ON fault_cases (ticket_id, sequence);
CREATE INDEX fault_cases_run ON fault_cases (run_id) WHERE run_id IS NOT NULL;
CREATE INDEX fault_cases_coupon ON fault_cases (coupon_id) WHERE coupon_id IS NOT NULL;
CREATE INDEX fault_cases_coat ON fault_cases (coat_id) WHERE coat_id IS NOT NULL;
${kept('fault_cases')}

CREATE TABLE fault_looks (
  id uuid PRIMARY KEY,
  case_id uuid NOT NULL REFERENCES fault_cases (id),
  faults jsonb NOT NULL,
  spots jsonb NOT NULL,
  note text NOT NULL DEFAULT '',${said}
);
CREATE INDEX fault_looks_case ON fault_looks (case_id, sequence);
${kept('fault_looks')}

CREATE TABLE fault_tests (
  id uuid PRIMARY KEY,
  case_id uuid NOT NULL REFERENCES fault_cases (id),
  test text NOT NULL,
  result text NOT NULL CHECK (result IN ('found', 'clear', 'cannot tell', 'skipped')),
  note text NOT NULL DEFAULT '',${said}
);
CREATE INDEX fault_tests_case ON fault_tests (case_id, sequence);
${kept('fault_tests')}

CREATE TABLE fault_findings (
  id uuid PRIMARY KEY,
  case_id uuid NOT NULL REFERENCES fault_cases (id),
  causes jsonb NOT NULL,
  way text,
  plan jsonb,
  chances jsonb NOT NULL,
  remedies jsonb NOT NULL,
  note text NOT NULL DEFAULT '',${said}
);
CREATE INDEX fault_findings_case ON fault_findings (case_id, sequence);
${kept('fault_findings')}

CREATE VIEW settled_faults AS
  SELECT c.id, c.ticket_id, c.kind, coalesce(c.run_id, c.coupon_id, c.coat_id) AS subject_id, t.compound_id, t.substrate_id,
    coalesce(r.by_id, c.by_id) AS by_id, f.causes, l.faults, f.at, f.sequence
  FROM fault_cases c
  JOIN tickets t ON t.id = c.ticket_id
  LEFT JOIN runs r ON r.id = c.run_id
  JOIN LATERAL (SELECT causes, at, sequence FROM fault_findings WHERE case_id = c.id ORDER BY sequence DESC LIMIT 1) f ON true
  JOIN LATERAL (SELECT faults FROM fault_looks WHERE case_id = c.id ORDER BY sequence DESC LIMIT 1) l ON true
  WHERE jsonb_array_length(f.causes) > 0;

CREATE TABLE reworks (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  run_id uuid NOT NULL REFERENCES runs (id),
  case_id uuid REFERENCES fault_cases (id),
  way text NOT NULL,
  pieces jsonb NOT NULL,
  region jsonb,
  alignment jsonb,
  focus_mm double precision,
  note text NOT NULL DEFAULT '',${said}
);
CREATE INDEX reworks_ticket ON reworks (ticket_id, sequence);
CREATE INDEX reworks_run ON reworks (run_id);
CREATE INDEX reworks_case ON reworks (case_id) WHERE case_id IS NOT NULL;
${kept('reworks')}

CREATE TABLE rework_runs (
  run_id uuid PRIMARY KEY REFERENCES runs (id),
  rework_id uuid NOT NULL REFERENCES reworks (id)
);
CREATE INDEX rework_runs_rework ON rework_runs (rework_id);
${kept('rework_runs')}

CREATE TABLE station_questions (
  id uuid PRIMARY KEY,
  station text NOT NULL,
  text text NOT NULL,
  compound_id uuid REFERENCES inventory_items (id),
  substrate_id uuid REFERENCES inventory_items (id),
  longer_than_mm double precision,
  case_id uuid REFERENCES fault_cases (id),${said}
);
CREATE INDEX station_questions_order ON station_questions (sequence DESC);
${kept('station_questions')}

CREATE TABLE station_question_ends (
  id uuid PRIMARY KEY,
  question_id uuid NOT NULL UNIQUE REFERENCES station_questions (id),
  why text NOT NULL,${said}
);
${kept('station_question_ends')}

CREATE TABLE upkeeps (
  id uuid PRIMARY KEY,
  item_id uuid NOT NULL REFERENCES inventory_items (id),
  what text NOT NULL CHECK (what IN ('cleaned', 'source renewed', 'aligned')),
  note text NOT NULL DEFAULT '',${said}
);
CREATE INDEX upkeeps_item ON upkeeps (item_id, sequence);
${kept('upkeeps')}

ALTER TABLE inventory_revisions DISABLE TRIGGER append_only;
UPDATE inventory_revisions SET body = '{"airAssist": null}' || body
  WHERE item_id IN (SELECT id FROM inventory_items WHERE kind = 'compound');
ALTER TABLE inventory_revisions ENABLE TRIGGER append_only;
`;
