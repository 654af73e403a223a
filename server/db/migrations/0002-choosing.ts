/**
 * Choices, identifications and kept files. Fields that store items gained are written into revisions made before, which are closed
 * to everything else.
 */
export const name = '0002-choosing';

/** Fields that items gained with this migration, as they were then. */
const GAINED = {
  head: { pulseNsMin: null, pulseNsMax: null, beamDiameterMm: null },
  lens: { spotSource: 'stated' },
  compound: {
    makerClaim: '',
    marks: 'dark',
    forceDry: 'never',
    thinner: '',
    thinnerMinorPerL: 0,
    potLifeHours: null,
    dataSheet: null,
    leadTimeDays: null,
    availability: null,
    help: null,
    trackRecord: null,
  },
  substrate: { alloy: '', ground: 'light', gaugeNumber: null, gaugeMetal: null, density: null, diameterMm: null },
};

const backfill = Object.entries(GAINED)
  .map(
    ([kind, fields]) =>
      `UPDATE store_revisions SET body = '${JSON.stringify(fields)}'::jsonb || body
       WHERE item_id IN (SELECT id FROM store_items WHERE kind = '${kind}');`,
  )
  .join('\n');

export const sql = `
CREATE TABLE choices (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  option_id text NOT NULL,
  method text NOT NULL,
  compound_id uuid REFERENCES store_items (id),
  off_label boolean NOT NULL,
  profile_id uuid REFERENCES store_items (id),
  weights jsonb NOT NULL,
  model_version integer NOT NULL,
  seed bigint NOT NULL,
  scores jsonb NOT NULL,
  switching jsonb NOT NULL,
  reason text NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX choices_ticket ON choices (ticket_id, at DESC);

CREATE TABLE identifications (
  id uuid PRIMARY KEY,
  label text NOT NULL,
  ticket_id uuid REFERENCES tickets (id),
  blank_id uuid REFERENCES store_items (id),
  words jsonb NOT NULL,
  weighed jsonb,
  density jsonb,
  model_version integer NOT NULL,
  probabilities jsonb NOT NULL,
  guess_key text NOT NULL,
  probability double precision NOT NULL CHECK (probability BETWEEN 0 AND 1),
  grade text NOT NULL,
  substrate_id uuid REFERENCES store_items (id),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX identifications_at ON identifications (at DESC);

CREATE TABLE stored_files (
  id uuid PRIMARY KEY,
  hash text NOT NULL UNIQUE,
  name text NOT NULL,
  media_type text NOT NULL,
  bytes integer NOT NULL CHECK (bytes > 0),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);

ALTER TABLE store_revisions DISABLE TRIGGER append_only;
${backfill}
ALTER TABLE store_revisions ENABLE TRIGGER append_only;

DO $$
DECLARE kept text;
BEGIN
  FOREACH kept IN ARRAY ARRAY['choices', 'identifications', 'stored_files'] LOOP
    EXECUTE format('CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION refuse_change()', kept);
  END LOOP;
END $$;
`;
