/**
 * One clock a tray: a coat of several trays dries by several clocks, and a tray that is rinsed off takes only what was laid on it. A clock
 * says how many pieces it is of, so that what is dry can be fired while another tray dries.
 */
export const name = '0019-trays';

/** The tray that a weighing is of; the first where nobody said. */
const trayOf = (weighing: string) => `coalesce((${weighing}.entered ->> 'tray')::int, 1)`;

export const sql = `
DROP VIEW ticket_progress;
DROP VIEW container_use;
DROP VIEW standing_weighings;

ALTER TABLE timers ADD COLUMN tray integer NOT NULL DEFAULT 1, ADD COLUMN pieces integer;

CREATE VIEW standing_weighings AS
SELECT w.*,
  EXISTS (SELECT 1 FROM coat_pictures p WHERE p.weighing_id = w.id AND p.decision = 'rinsed off')
  OR EXISTS (
    SELECT 1 FROM timers d
    WHERE d.ticket_id = w.ticket_id AND d.tray = ${trayOf('w')} AND d.kind = 'dry' AND d.outcome = 'dropped'
      AND d.ended_sequence > w.sequence
      AND NOT EXISTS (
        SELECT 1 FROM timers p
        WHERE p.ticket_id = w.ticket_id AND p.tray = d.tray AND p.kind = 'dry' AND p.outcome = 'passed'
          AND p.ended_sequence > w.sequence AND p.ended_sequence < d.ended_sequence)
  ) AS rinsed_off
FROM weighings w
WHERE NOT EXISTS (SELECT 1 FROM weighings later WHERE later.corrects_id = w.id);

CREATE VIEW container_use AS
SELECT w.container_id,
  (array_agg(w.after_g ORDER BY w.sequence DESC))[1] AS now_g,
  (array_agg(w.at ORDER BY w.sequence DESC))[1] AS weighed_at,
  sum(w.before_g - w.after_g) AS mass_applied_g,
  sum(w.pieces * a.mm2) AS area_mm2,
  (array_agg(a.mm2 ORDER BY w.sequence DESC))[1] AS last_piece_mm2
FROM standing_weighings w
JOIN tickets t ON t.id = w.ticket_id
CROSS JOIN LATERAL (SELECT (t.mark_width_mm + 2 * t.coat_margin_mm) * (t.mark_height_mm + 2 * t.coat_margin_mm) AS mm2) a
GROUP BY w.container_id;

CREATE VIEW ticket_progress AS
SELECT t.id AS ticket_id,
  coalesce(coat.pieces, 0)::int AS coated_pieces,
  coalesce(coat.unclocked, 0)::int AS unclocked_pieces,
  coalesce(coat.off_band, 0)::int AS off_band_pieces,
  coalesce(stored.pieces, 0)::int AS stored_pieces,
  stored.keep_until AS stored_until,
  (SELECT max(d.started_at + d.minimum_s * interval '1 second')
     FROM timers d WHERE d.ticket_id = t.id AND d.kind = 'dry' AND d.ended_at IS NULL) AS drying_until,
  (SELECT CASE WHEN bool_and(d.pieces IS NOT NULL) THEN sum(d.pieces)::int END
     FROM timers d WHERE d.ticket_id = t.id AND d.kind = 'dry' AND d.ended_at IS NULL) AS drying_pieces,
  coalesce(
    (SELECT s.stage FROM coupon_stage s WHERE s.ticket_id = t.id AND s.stage <> 'scrubbed' ORDER BY s.number DESC LIMIT 1),
    CASE WHEN EXISTS (SELECT 1 FROM coupons c WHERE c.ticket_id = t.id) THEN 'scrubbed' ELSE 'none' END) AS coupon,
  (SELECT max(p.number) FROM recipes p WHERE p.ticket_id = t.id AND p.sequence > coalesce(t.restarted_sequence, 0))
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
      sum(w.pieces) OVER (ORDER BY w.sequence DESC) - w.pieces AS newer,
      sum(w.pieces) OVER () - coalesce(run.pieces, 0) AS unmarked,
      EXISTS (
        SELECT 1 FROM timers p
        WHERE p.ticket_id = w.ticket_id AND p.tray = ${trayOf('w')} AND p.kind = 'dry' AND p.outcome = 'passed'
          AND (p.ended_sequence > w.sequence OR p.sequence > coalesce(w.before, 0))) AS clocked,
      (w.film ->> 'value')::float NOT BETWEEN (v.body ->> 'dryFilmMinUm')::float AND (v.body ->> 'dryFilmMaxUm')::float
        AS off_band
    FROM (
      SELECT s.*, lag(s.sequence) OVER (PARTITION BY ${trayOf('s')} ORDER BY s.sequence) AS before
      FROM standing_weighings s WHERE s.ticket_id = t.id AND NOT s.rinsed_off) w
    JOIN inventory_revisions v ON v.id = w.compound_revision_id) c) coat ON true;
`;
