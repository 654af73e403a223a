/** The whole setting from coupon to run; what was in force when a coupon was fired; which outcomes were judged by eye. */
export const name = '0010-setting';

export const sql = `
ALTER TABLE coupons ADD COLUMN firing jsonb;

-- A ticket begins anew with another part, head or lens: what was ticked and taken before counts no more.
ALTER TABLE tickets ADD COLUMN restarted_at timestamptz;
ALTER TABLE checks DROP CONSTRAINT checks_kind_check;
ALTER TABLE checks ADD CONSTRAINT checks_kind_check CHECK (kind IN ('check', 'caution', 'taken back'));

-- How a compound is laid on was not asked before: everything was sprayed from the can.
ALTER TABLE inventory_revisions DISABLE TRIGGER append_only;
UPDATE inventory_revisions r SET body = r.body || '{"application": "aerosol"}'
  FROM inventory_items i WHERE i.id = r.item_id AND i.kind = 'compound' AND NOT r.body ? 'application';
ALTER TABLE inventory_revisions ENABLE TRIGGER append_only;

ALTER TABLE recipes
  ADD COLUMN power_w double precision,
  ADD COLUMN hatches integer NOT NULL DEFAULT 1,
  ADD COLUMN angle_deg double precision NOT NULL DEFAULT 0,
  ADD COLUMN fill text NOT NULL DEFAULT 'filled',
  ADD COLUMN frequency_k_hz double precision,
  ADD COLUMN pulse_ns double precision,
  ADD COLUMN directions text,
  ADD COLUMN power_mode text,
  ADD COLUMN air text,
  ADD COLUMN extraction text,
  ADD COLUMN because jsonb NOT NULL DEFAULT '[]';

ALTER TABLE runs
  ADD COLUMN hatches integer NOT NULL DEFAULT 1,
  ADD COLUMN angle_deg double precision NOT NULL DEFAULT 0,
  ADD COLUMN fill text NOT NULL DEFAULT 'filled',
  ADD COLUMN frequency_k_hz double precision,
  ADD COLUMN pulse_ns double precision,
  ADD COLUMN directions text,
  ADD COLUMN power_mode text,
  ADD COLUMN extraction text,
  ADD COLUMN reason text NOT NULL DEFAULT '',
  ADD COLUMN because jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN bench jsonb;

ALTER TABLE test_steps
  ADD COLUMN passes integer NOT NULL DEFAULT 1,
  ADD COLUMN hatches integer NOT NULL DEFAULT 1,
  ADD COLUMN angle_deg double precision NOT NULL DEFAULT 0,
  ADD COLUMN fill text NOT NULL DEFAULT 'filled',
  ADD COLUMN focus_offset_mm double precision NOT NULL DEFAULT 0,
  ADD COLUMN frequency_k_hz double precision,
  ADD COLUMN pulse_ns double precision,
  ADD COLUMN directions text,
  ADD COLUMN power_mode text,
  ADD COLUMN air text,
  ADD COLUMN extraction text;

-- Runs that no later one corrects, with what followed them: made anew, since a view keeps the columns it was made with.
DROP VIEW ticket_progress;
DROP VIEW standing_runs;
CREATE VIEW standing_runs AS
SELECT r.*,
  EXISTS (SELECT 1 FROM cleanings c WHERE c.run_id = r.id) AS cleaned,
  judged.faults IS NOT NULL AS judged,
  coalesce(jsonb_array_length(judged.faults), 0) AS faults,
  judged.pieces_good
FROM runs r
LEFT JOIN LATERAL (
  SELECT j.faults, j.pieces_good FROM judgements j WHERE j.run_id = r.id ORDER BY j.at DESC LIMIT 1) judged ON true
WHERE NOT EXISTS (SELECT 1 FROM runs later WHERE later.corrects_id = r.id);

-- How far a ticket is: one row a ticket, counted from what stands. A coat was clocked when a drying passed after it was weighed, or
-- between the weighing before it and its own (parts are weighed once they are dry). What was coated last is taken to be fired last.
CREATE VIEW ticket_progress AS
SELECT t.id AS ticket_id,
  coalesce(coat.pieces, 0)::int AS coated_pieces,
  coalesce(coat.unclocked, 0)::int AS unclocked_pieces,
  coalesce(coat.off_band, 0)::int AS off_band_pieces,
  coalesce(stored.pieces, 0)::int AS stored_pieces,
  stored.keep_until AS stored_until,
  (SELECT max(d.started_at + d.minimum_s * interval '1 second')
     FROM timers d WHERE d.ticket_id = t.id AND d.kind = 'dry' AND d.ended_at IS NULL) AS drying_until,
  coalesce(
    (SELECT s.stage FROM coupon_stage s WHERE s.ticket_id = t.id AND s.stage <> 'scrubbed' ORDER BY s.number DESC LIMIT 1),
    CASE WHEN EXISTS (SELECT 1 FROM coupons c WHERE c.ticket_id = t.id) THEN 'scrubbed' ELSE 'none' END) AS coupon,
  (SELECT max(p.number) FROM recipes p WHERE p.ticket_id = t.id AND p.at > coalesce(t.restarted_at, '-infinity'))
    AS recipe_number,
  coalesce(run.pieces, 0)::int AS marked_pieces,
  coalesce(run.rejected, 0)::int AS rejected_pieces,
  coalesce(run.runs, 0)::int AS runs,
  coalesce(run.cleaned, 0)::int AS runs_cleaned,
  coalesce(run.judged, 0)::int AS runs_judged,
  coalesce(run.faulty, 0)::int AS runs_faulty
FROM tickets t
LEFT JOIN LATERAL (
  SELECT sum(s.pieces) AS pieces, min(s.keep_until) AS keep_until
  FROM stored_coats s WHERE s.ticket_id = t.id AND s.ended_at IS NULL) stored ON true
LEFT JOIN LATERAL (
  SELECT sum(r.pieces) AS pieces, sum(r.pieces - r.pieces_good) AS rejected, count(*) AS runs,
    count(*) FILTER (WHERE r.cleaned) AS cleaned, count(*) FILTER (WHERE r.judged) AS judged,
    count(*) FILTER (WHERE r.faults > 0) AS faulty
  FROM standing_runs r WHERE r.ticket_id = t.id) run ON true
LEFT JOIN LATERAL (
  SELECT sum(c.pieces) AS pieces,
    sum(c.pieces) FILTER (WHERE c.newer < c.unmarked AND NOT c.clocked) AS unclocked,
    sum(c.pieces) FILTER (WHERE c.newer < c.unmarked AND c.off_band) AS off_band
  FROM (
    SELECT w.pieces,
      sum(w.pieces) OVER (ORDER BY w.at DESC, w.id) - w.pieces AS newer,
      sum(w.pieces) OVER () - coalesce(run.pieces, 0) AS unmarked,
      EXISTS (
        SELECT 1 FROM timers p
        WHERE p.ticket_id = w.ticket_id AND p.kind = 'dry' AND p.outcome = 'passed'
          AND (p.ended_at >= w.at OR p.started_at > coalesce(w.before, '-infinity'))) AS clocked,
      (w.film ->> 'value')::float NOT BETWEEN (v.body ->> 'dryFilmMinUm')::float AND (v.body ->> 'dryFilmMaxUm')::float
        AS off_band
    FROM (
      SELECT s.*, lag(s.at) OVER (ORDER BY s.at) AS before
      FROM standing_weighings s WHERE s.ticket_id = t.id AND NOT s.rinsed_off) w
    JOIN inventory_revisions v ON v.id = w.compound_revision_id) c) coat ON true;

-- The newest outcome of every cell at each stage. By eye is what no picture proposed, or what somebody took against it.
CREATE OR REPLACE VIEW cell_outcomes AS
SELECT DISTINCT ON (r.coupon_id, r.stage, entry.cell)
  r.coupon_id, r.stage, entry.cell, entry.outcome, r.source, r.id AS reading_id,
  (r.source <> 'picture' OR entry.proposed IS DISTINCT FROM entry.outcome) AS by_eye
FROM readings r
CROSS JOIN LATERAL jsonb_to_recordset(r.entries) AS entry (cell integer, outcome text, proposed text)
ORDER BY r.coupon_id, r.stage, entry.cell, r.sequence DESC;
`;
