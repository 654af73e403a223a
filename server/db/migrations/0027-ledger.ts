/**
 * The ledger is looked through by one row a run, kept beside the runs as they are logged, cleaned, judged, corrected and traced: what it is filtered
 * by, and every word that a search may ask for. Filters that somebody gave a name.
 */
export const name = '0027-ledger';

const filters = [
  'substrate_id',
  'compound_id',
  'head_id',
  'by_id',
  'ticket_id',
  'grade',
  'can_lot',
  'blank_lot',
  'judged',
];

export const sql = `
CREATE TABLE ledger_rows (
  id uuid PRIMARY KEY REFERENCES runs (id),
  at timestamptz NOT NULL,
  ticket_id uuid NOT NULL,
  substrate_id uuid NOT NULL,
  compound_id uuid,
  head_id uuid NOT NULL,
  by_id uuid NOT NULL,
  grade text NOT NULL,
  can_lot text,
  blank_lot text,
  judged boolean NOT NULL,
  faulty boolean NOT NULL,
  words tsvector NOT NULL
);

CREATE VIEW ledger_row_of AS
  SELECT r.id, r.at, r.ticket_id, r.substrate_id, r.compound_id, r.head_id, r.by_id, r.grade,
    nullif(r.bench -> 'coat' ->> 'lot', '') AS can_lot, nullif(r.bench -> 'blank' ->> 'lot', '') AS blank_lot,
    j.run_id IS NOT NULL AS judged, coalesce(jsonb_array_length(j.faults), 0) > 0 AS faulty,
    to_tsvector('simple', concat_ws(' ', t.title, t.number, r.note, r.reason, r.grade, s.body ->> 'name', c.body ->> 'name',
      h.body ->> 'name', o.name, r.bench -> 'coat' ->> 'lot', r.bench -> 'coat' ->> 'container', r.bench -> 'blank' ->> 'name',
      r.bench -> 'blank' ->> 'lot', j.note, j.faults, j.evenness, (SELECT string_agg(x.method, ' ') FROM cleanings x WHERE x.run_id = r.id),
      (SELECT string_agg(concat_ws(' ', f.causes, f.note), ' ') FROM fault_findings f JOIN fault_cases k ON k.id = f.case_id WHERE k.run_id = r.id))) AS words
  FROM runs r
  JOIN tickets t ON t.id = r.ticket_id
  JOIN operators o ON o.id = r.by_id
  LEFT JOIN inventory_revisions s ON s.id = (r.revisions ->> 'substrate')::uuid
  LEFT JOIN inventory_revisions c ON c.id = (r.revisions ->> 'compound')::uuid
  LEFT JOIN inventory_revisions h ON h.id = (r.revisions ->> 'head')::uuid
  LEFT JOIN LATERAL (SELECT x.run_id, x.note, x.faults, x.evenness FROM judgements x WHERE x.run_id = r.id ORDER BY x.sequence DESC LIMIT 1) j ON true;

INSERT INTO ledger_rows SELECT * FROM ledger_row_of;

CREATE FUNCTION note_in_ledger(run uuid) RETURNS void LANGUAGE sql AS $$
  INSERT INTO ledger_rows SELECT * FROM ledger_row_of WHERE id = run
  ON CONFLICT (id) DO UPDATE SET judged = EXCLUDED.judged, faulty = EXCLUDED.faulty, words = EXCLUDED.words;
$$;
CREATE FUNCTION run_in_ledger() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN PERFORM note_in_ledger(NEW.id); RETURN NULL; END $$;
CREATE FUNCTION follow_up_in_ledger() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN PERFORM note_in_ledger(NEW.run_id); RETURN NULL; END $$;
CREATE FUNCTION finding_in_ledger() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN PERFORM note_in_ledger(k.run_id) FROM fault_cases k WHERE k.id = NEW.case_id AND k.run_id IS NOT NULL; RETURN NULL; END $$;
CREATE FUNCTION title_in_ledger() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN PERFORM note_in_ledger(r.id) FROM runs r WHERE r.ticket_id = NEW.id; RETURN NULL; END $$;
CREATE TRIGGER in_ledger AFTER INSERT ON runs FOR EACH ROW EXECUTE FUNCTION run_in_ledger();
CREATE TRIGGER in_ledger AFTER INSERT ON judgements FOR EACH ROW EXECUTE FUNCTION follow_up_in_ledger();
CREATE TRIGGER in_ledger AFTER INSERT ON cleanings FOR EACH ROW EXECUTE FUNCTION follow_up_in_ledger();
CREATE TRIGGER in_ledger AFTER INSERT ON fault_findings FOR EACH ROW EXECUTE FUNCTION finding_in_ledger();
CREATE TRIGGER in_ledger AFTER UPDATE OF title ON tickets FOR EACH ROW WHEN (OLD.title IS DISTINCT FROM NEW.title)
  EXECUTE FUNCTION title_in_ledger();

CREATE INDEX ledger_rows_at ON ledger_rows (at DESC, id DESC);
${filters.map((column) => `CREATE INDEX ledger_rows_${column} ON ledger_rows (${column}, at DESC, id DESC);`).join('\n')}
CREATE INDEX ledger_rows_pairing ON ledger_rows (substrate_id, compound_id, at DESC, id DESC);
CREATE INDEX ledger_rows_faulty ON ledger_rows (at DESC, id DESC) WHERE faulty;
CREATE INDEX ledger_rows_words ON ledger_rows USING gin (words) WITH (fastupdate = off);
ALTER TABLE ledger_rows ALTER COLUMN words SET STATISTICS 1000;
ANALYZE ledger_rows;

CREATE TABLE ledger_filters (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  query jsonb NOT NULL,
  retired boolean NOT NULL DEFAULT false,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
`;
