/** Coupons burnt by a controller and read from pictures; proof by climbing on the piece itself. */
export const name = '0007-proving';

export const sql = `
-- Designs made before there were corner marks, anchors and the rest have none of them.
UPDATE coupons SET design = design || jsonb_build_object(
  'hatches', 1, 'artwork', NULL, 'compoundIds', '[]'::jsonb, 'anchors', false, 'bareStrip', false, 'frame', false,
  'order', 'as read', 'orderSeed', 1,
  'fixed', (design -> 'fixed') || '{"frequencyKHz": null, "pulseNs": null}'::jsonb);

ALTER TABLE coupons ADD COLUMN burnt_cells jsonb;

CREATE TABLE coupon_pictures (
  id uuid PRIMARY KEY,
  coupon_id uuid NOT NULL REFERENCES coupons (id),
  stage text NOT NULL CHECK (stage IN ('rinsed', 'scrubbed')),
  file_hash text NOT NULL,
  entries jsonb NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX coupon_pictures_coupon ON coupon_pictures (coupon_id, at);
CREATE INDEX coupon_pictures_file ON coupon_pictures (file_hash);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON coupon_pictures FOR EACH ROW EXECUTE FUNCTION refuse_change();

ALTER TABLE readings ADD COLUMN picture_id uuid REFERENCES coupon_pictures (id);
ALTER TABLE readings ADD COLUMN rules jsonb;

CREATE TABLE burns (
  id uuid PRIMARY KEY,
  coupon_id uuid NOT NULL REFERENCES coupons (id),
  attempt integer NOT NULL,
  state text NOT NULL CHECK (state IN ('running', 'paused', 'waiting', 'dropped', 'stopped', 'partly', 'done')),
  laser_on text NOT NULL CHECK (laser_on IN ('M3', 'M4')),
  elapsed_s double precision NOT NULL,
  total_s double precision NOT NULL,
  cells_done jsonb NOT NULL,
  cells_before jsonb NOT NULL,
  cell integer,
  message text NOT NULL,
  started_at timestamptz NOT NULL,
  seen_at timestamptz NOT NULL,
  ended_at timestamptz,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX burns_coupon ON burns (coupon_id, started_at);

CREATE TABLE climb_steps (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  power_percent double precision NOT NULL,
  power_w double precision NOT NULL,
  speed_mm_per_s double precision NOT NULL,
  interval_mm double precision NOT NULL,
  outcome text NOT NULL CHECK (outcome IN ('lost', 'faint', 'holds', 'over')),
  note text NOT NULL,
  pins jsonb NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX climb_steps_ticket ON climb_steps (ticket_id, at);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON climb_steps FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
