/**
 * How much of its contrast a cell kept, beside what it was read as, and the limit it was held against: the window takes the number where a
 * picture told it.
 */
export const name = '0020-kept';

export const sql = `
CREATE OR REPLACE VIEW cell_outcomes AS
SELECT DISTINCT ON (r.coupon_id, r.stage, entry.cell)
  r.coupon_id, r.stage, entry.cell, entry.outcome, r.source, r.id AS reading_id,
  (r.source <> 'picture' OR entry.proposed IS DISTINCT FROM entry.outcome) AS by_eye,
  entry.kept, (r.rules ->> 'retention')::double precision AS kept_limit
FROM readings r
CROSS JOIN LATERAL jsonb_to_recordset(r.entries)
  AS entry (cell integer, outcome text, proposed text, kept double precision)
ORDER BY r.coupon_id, r.stage, entry.cell, r.sequence DESC;
`;
