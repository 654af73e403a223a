/**
 * Programs sent to the controller are of a coupon or of a run that is counted: parts name its pieces. What a picture of a
 * tray told of a run's pieces. Pieces placed by a picture, and how the card lies in the machine. Contrast by the printed scale.
 */
export const name = '0025-bench';

export const sql = `
ALTER TABLE burns
  ALTER COLUMN coupon_id DROP NOT NULL,
  ADD COLUMN marking_id uuid REFERENCES markings (id),
  ADD COLUMN parts jsonb,
  ADD CONSTRAINT burns_of_one CHECK ((coupon_id IS NULL) <> (marking_id IS NULL));
CREATE INDEX burns_of_marking ON burns (marking_id) WHERE marking_id IS NOT NULL;

ALTER TABLE place_readings DROP CONSTRAINT place_readings_kind_check;
ALTER TABLE place_readings ADD CONSTRAINT place_readings_kind_check
  CHECK (kind IN ('focus', 'flatness', 'centre', 'round', 'align', 'pointer', 'set', 'zero', 'laid'));
CREATE INDEX place_readings_zero ON place_readings (head_id, at DESC) WHERE kind = 'zero';

ALTER TABLE judgements ADD COLUMN steps_apart integer CHECK (steps_apart BETWEEN 0 AND 10);

CREATE TABLE tray_readings (
  id uuid PRIMARY KEY,
  run_id uuid NOT NULL REFERENCES runs (id),
  file_hash text NOT NULL REFERENCES stored_files (hash),
  read jsonb NOT NULL,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX tray_readings_run ON tray_readings (run_id, sequence);
CREATE INDEX tray_readings_file ON tray_readings (file_hash);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON tray_readings FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
