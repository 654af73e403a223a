/** What stands after corrections, as views that every list and count asks; indexes for what is filtered. */
export const name = '0009-standing';

export const sql = `
-- Runs that no later one corrects, with what followed them.
CREATE VIEW standing_runs AS
SELECT r.*,
  EXISTS (SELECT 1 FROM cleanings c WHERE c.run_id = r.id) AS cleaned,
  judged.faults IS NOT NULL AS judged,
  coalesce(jsonb_array_length(judged.faults), 0) AS faults
FROM runs r
LEFT JOIN LATERAL (SELECT j.faults FROM judgements j WHERE j.run_id = r.id ORDER BY j.at DESC LIMIT 1) judged ON true
WHERE NOT EXISTS (SELECT 1 FROM runs later WHERE later.corrects_id = r.id);

-- Weighings that no later one corrects. A coat is off again once its picture said so, or once its drying was broken off: the coats laid
-- since the last drying that passed.
CREATE VIEW standing_weighings AS
SELECT w.*,
  EXISTS (SELECT 1 FROM coat_pictures p WHERE p.weighing_id = w.id AND p.decision = 'rinsed off')
  OR EXISTS (
    SELECT 1 FROM timers d
    WHERE d.ticket_id = w.ticket_id AND d.kind = 'dry' AND d.outcome = 'dropped' AND d.ended_at >= w.at
      AND NOT EXISTS (
        SELECT 1 FROM timers p
        WHERE p.ticket_id = w.ticket_id AND p.kind = 'dry' AND p.outcome = 'passed'
          AND p.ended_at >= w.at AND p.ended_at <= d.ended_at)
  ) AS rinsed_off
FROM weighings w
WHERE NOT EXISTS (SELECT 1 FROM weighings later WHERE later.corrects_id = w.id);

-- The newest outcome of every cell of a coupon at each stage.
CREATE VIEW cell_outcomes AS
SELECT DISTINCT ON (r.coupon_id, r.stage, entry.cell)
  r.coupon_id, r.stage, entry.cell, entry.outcome, r.source, r.id AS reading_id
FROM readings r
CROSS JOIN LATERAL jsonb_to_recordset(r.entries) AS entry (cell integer, outcome text)
ORDER BY r.coupon_id, r.stage, entry.cell, r.sequence DESC;

-- How far a coupon is.
CREATE VIEW coupon_stage AS
SELECT c.id AS coupon_id, c.ticket_id, c.number,
  CASE
    WHEN EXISTS (SELECT 1 FROM readings r WHERE r.coupon_id = c.id AND r.stage = 'scrubbed') THEN 'scrubbed'
    WHEN EXISTS (SELECT 1 FROM readings r WHERE r.coupon_id = c.id AND r.stage = 'rinsed') THEN 'rinsed'
    WHEN c.burnt_at IS NOT NULL THEN 'burnt'
    ELSE 'designed'
  END AS stage
FROM coupons c;

-- How far a ticket is: one row a ticket, counted from what stands.
CREATE VIEW ticket_progress AS
SELECT t.id AS ticket_id,
  coalesce((SELECT sum(w.pieces) FROM standing_weighings w WHERE w.ticket_id = t.id AND NOT w.rinsed_off), 0)::int AS coated_pieces,
  coalesce(stored.pieces, 0)::int AS stored_pieces,
  stored.keep_until AS stored_until,
  (SELECT max(d.started_at + d.minimum_s * interval '1 second')
     FROM timers d WHERE d.ticket_id = t.id AND d.kind = 'dry' AND d.ended_at IS NULL) AS drying_until,
  coalesce(
    (SELECT s.stage FROM coupon_stage s WHERE s.ticket_id = t.id AND s.stage <> 'scrubbed' ORDER BY s.number DESC LIMIT 1),
    CASE WHEN EXISTS (SELECT 1 FROM coupons c WHERE c.ticket_id = t.id) THEN 'scrubbed' ELSE 'none' END) AS coupon,
  (SELECT max(p.number) FROM recipes p WHERE p.ticket_id = t.id) AS recipe_number,
  coalesce(run.pieces, 0)::int AS marked_pieces,
  coalesce(run.runs, 0)::int AS runs,
  coalesce(run.cleaned, 0)::int AS runs_cleaned,
  coalesce(run.judged, 0)::int AS runs_judged,
  coalesce(run.faulty, 0)::int AS runs_faulty
FROM tickets t
LEFT JOIN LATERAL (
  SELECT sum(s.pieces) AS pieces, min(s.keep_until) AS keep_until
  FROM stored_coats s WHERE s.ticket_id = t.id AND s.ended_at IS NULL) stored ON true
LEFT JOIN LATERAL (
  SELECT sum(r.pieces) AS pieces, count(*) AS runs, count(*) FILTER (WHERE r.cleaned) AS cleaned,
    count(*) FILTER (WHERE r.judged) AS judged, count(*) FILTER (WHERE r.faults > 0) AS faulty
  FROM standing_runs r WHERE r.ticket_id = t.id) run ON true;

-- What a container weighed last, and what was laid out of it so far over how large an area.
CREATE VIEW container_use AS
SELECT w.container_id,
  (array_agg(w.after_g ORDER BY w.at DESC))[1] AS now_g,
  max(w.at) AS weighed_at,
  sum(w.before_g - w.after_g) AS mass_applied_g,
  sum(w.pieces * a.mm2) AS area_mm2,
  (array_agg(a.mm2 ORDER BY w.at DESC))[1] AS last_piece_mm2
FROM standing_weighings w
JOIN tickets t ON t.id = w.ticket_id
CROSS JOIN LATERAL (SELECT (t.mark_width_mm + 2 * t.coat_margin_mm) * (t.mark_height_mm + 2 * t.coat_margin_mm) AS mm2) a
GROUP BY w.container_id;

CREATE INDEX runs_grade ON runs (grade, at DESC, id DESC);
CREATE INDEX timers_open ON timers (started_at) WHERE ended_at IS NULL;
CREATE INDEX timers_drying ON timers (ticket_id, ended_at) WHERE kind = 'dry';
CREATE INDEX weighings_corrects ON weighings (corrects_id) WHERE corrects_id IS NOT NULL;
CREATE INDEX coat_pictures_weighing ON coat_pictures (weighing_id) WHERE decision = 'rinsed off';
CREATE INDEX coupons_revisions ON coupons USING gin (revisions jsonb_path_ops);
CREATE INDEX runs_revisions ON runs USING gin (revisions jsonb_path_ops);
CREATE INDEX readings_scrubbed ON readings (coupon_id) WHERE stage = 'scrubbed';
CREATE INDEX stated_settings_at ON stated_settings (at DESC, id);
CREATE INDEX recipes_ticket ON recipes (ticket_id, number DESC);
`;
