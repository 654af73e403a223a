/**
 * Recipes belong to what they were proved on (compound, substrate, head, lens), not to a ticket: a ticket takes one into use. A recipe is
 * suspended and put back into use by rows of its own; what it was fitted with besides (weights of coupons, where it is valid) goes with it.
 */
export const name = '0021-recipes';

export const sql = `
DROP VIEW ticket_progress;

ALTER TABLE recipes DROP CONSTRAINT recipes_ticket_id_number_key;
ALTER TABLE recipes
  ALTER COLUMN ticket_id DROP NOT NULL,
  ADD COLUMN substrate_id uuid REFERENCES inventory_items (id),
  ADD COLUMN compound_id uuid REFERENCES inventory_items (id),
  ADD COLUMN head_id uuid REFERENCES inventory_items (id),
  ADD COLUMN lens_id uuid REFERENCES inventory_items (id),
  ADD COLUMN weights jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN run_ids jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN valid jsonb;
ALTER TABLE recipes DISABLE TRIGGER append_only;
UPDATE recipes p SET
  substrate_id = coalesce((SELECT v.item_id FROM inventory_revisions v WHERE v.id::text = p.revisions ->> 'substrate'), t.substrate_id),
  compound_id = coalesce((SELECT v.item_id FROM inventory_revisions v WHERE v.id::text = p.revisions ->> 'compound'), t.compound_id),
  head_id = coalesce((SELECT v.item_id FROM inventory_revisions v WHERE v.id::text = p.revisions ->> 'head'), t.head_id),
  lens_id = coalesce((SELECT v.item_id FROM inventory_revisions v WHERE v.id::text = p.revisions ->> 'lens'), t.lens_id)
FROM tickets t WHERE t.id = p.ticket_id;
UPDATE recipes p SET number = n.number FROM (
  SELECT id, row_number() OVER (PARTITION BY substrate_id, compound_id, head_id, lens_id ORDER BY sequence) AS number FROM recipes) n
WHERE n.id = p.id;
ALTER TABLE recipes ENABLE TRIGGER append_only;
ALTER TABLE recipes
  ALTER COLUMN substrate_id SET NOT NULL, ALTER COLUMN head_id SET NOT NULL, ALTER COLUMN lens_id SET NOT NULL;
CREATE UNIQUE INDEX recipes_version ON recipes (substrate_id, head_id, lens_id, compound_id, number) NULLS NOT DISTINCT;
CREATE INDEX runs_recipe ON runs (recipe_id) WHERE recipe_id IS NOT NULL;

CREATE TABLE recipe_uses (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  recipe_id uuid NOT NULL REFERENCES recipes (id),
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
INSERT INTO recipe_uses (id, ticket_id, recipe_id, sequence, at, by_id)
  SELECT gen_random_uuid(), ticket_id, id, sequence, at, by_id FROM recipes;
CREATE INDEX recipe_uses_ticket ON recipe_uses (ticket_id, sequence DESC);
CREATE INDEX recipe_uses_recipe ON recipe_uses (recipe_id);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON recipe_uses FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE recipe_states (
  id uuid PRIMARY KEY,
  recipe_id uuid NOT NULL REFERENCES recipes (id),
  state text NOT NULL CHECK (state IN ('in use', 'may drift', 'suspended')),
  why text NOT NULL,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX recipe_states_recipe ON recipe_states (recipe_id, sequence DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON recipe_states FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE VIEW standing_recipes AS
SELECT p.id, p.number, p.kind, p.substrate_id, p.compound_id, p.head_id, p.lens_id,
  p.kind <> 'step test' AND p.grade IN ('proved', 'proved by eye') AS proved,
  coalesce(s.state, 'in use') AS state, coalesce(s.state = 'suspended', false) AS suspended, s.why, s.at AS since, s.by_id AS since_by
FROM recipes p
LEFT JOIN LATERAL (
  SELECT q.state, q.why, q.at, q.by_id FROM recipe_states q WHERE q.recipe_id = p.id ORDER BY q.sequence DESC LIMIT 1) s ON true;

-- A coupon of several compounds speaks of each; its cells are told apart by its design alone, so that they are counted elsewhere.
CREATE VIEW window_pairings AS
SELECT md5(concat_ws(' ', c.substrate_id, c.head_id, c.lens_id, of.compound_id))::uuid AS id,
  max(c.number) AS number, max(c.created_at) AS newest_at, c.substrate_id, of.compound_id, c.head_id, c.lens_id,
  count(*)::int AS coupons, sum(o.cells)::int AS cells, sum(o.holds)::int AS holds,
  bool_or(jsonb_array_length(c.design -> 'compoundIds') > 0) AS shared
FROM coupons c
JOIN (
  SELECT coupon_id, count(*) AS cells, count(*) FILTER (WHERE outcome = 'holds') AS holds
  FROM cell_outcomes WHERE stage = 'scrubbed' GROUP BY coupon_id) o ON o.coupon_id = c.id
CROSS JOIN LATERAL (
  SELECT c.compound_id UNION SELECT sprayed::uuid FROM jsonb_array_elements_text(c.design -> 'compoundIds') sprayed) of (compound_id)
GROUP BY c.substrate_id, of.compound_id, c.head_id, c.lens_id;

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
  used.number AS recipe_number,
  coalesce(used.suspended, false) AS recipe_suspended,
  (SELECT p.number FROM standing_recipes p
     WHERE used.number IS NULL AND p.proved AND NOT p.suspended AND p.substrate_id = t.substrate_id AND p.head_id = t.head_id
       AND p.lens_id = t.lens_id AND p.compound_id IS NOT DISTINCT FROM t.compound_id
     ORDER BY p.number DESC LIMIT 1) AS recipe_offered,
  coalesce(run.pieces, 0)::int AS marked_pieces,
  coalesce(run.rejected, 0)::int AS rejected_pieces,
  coalesce(run.runs, 0)::int AS runs,
  coalesce(run.cleaned, 0)::int AS runs_cleaned,
  coalesce(run.judged, 0)::int AS runs_judged,
  coalesce(run.faulty, 0)::int AS runs_faulty
FROM tickets t
LEFT JOIN LATERAL (
  SELECT p.number, p.suspended FROM recipe_uses u JOIN standing_recipes p ON p.id = u.recipe_id
  WHERE u.ticket_id = t.id AND u.sequence > coalesce(t.restarted_sequence, 0)
  ORDER BY u.sequence DESC LIMIT 1) used ON true
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
        WHERE p.ticket_id = w.ticket_id AND p.tray = coalesce((w.entered ->> 'tray')::int, 1) AND p.kind = 'dry' AND p.outcome = 'passed'
          AND (p.ended_sequence > w.sequence OR p.sequence > coalesce(w.before, 0))) AS clocked,
      (w.film ->> 'value')::float NOT BETWEEN (v.body ->> 'dryFilmMinUm')::float AND (v.body ->> 'dryFilmMaxUm')::float
        AS off_band
    FROM (
      SELECT s.*, lag(s.sequence) OVER (PARTITION BY coalesce((s.entered ->> 'tray')::int, 1) ORDER BY s.sequence) AS before
      FROM standing_weighings s WHERE s.ticket_id = t.id AND NOT s.rinsed_off) w
    JOIN inventory_revisions v ON v.id = w.compound_revision_id) c) coat ON true;
`;
