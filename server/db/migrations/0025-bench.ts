/**
 * Programs sent to the controller are of a coupon or of a run that is counted: parts name its pieces.
 */
export const name = '0025-bench';

export const sql = `
ALTER TABLE burns
  ALTER COLUMN coupon_id DROP NOT NULL,
  ADD COLUMN marking_id uuid REFERENCES markings (id),
  ADD COLUMN parts jsonb,
  ADD CONSTRAINT burns_of_one CHECK ((coupon_id IS NULL) <> (marking_id IS NULL));
CREATE INDEX burns_of_marking ON burns (marking_id) WHERE marking_id IS NOT NULL;
`;
