/**
 * Somebody looks once more at a cell that disagrees with its neighbours: a reading of its own, which bears out what was read before, and
 * how, where it says the same.
 */
export const name = '0029-looked-again';

const entriesOf = (where: string) => `
  SELECT r.coupon_id, r.stage, entry.cell, entry.outcome, r.source, r.id AS reading_id, r.sequence,
    (r.source <> 'picture' OR entry.proposed IS DISTINCT FROM entry.outcome) AS by_eye,
    entry.kept, (r.rules ->> 'retention')::double precision AS kept_limit
  FROM readings r
  CROSS JOIN LATERAL jsonb_to_recordset(r.entries)
    AS entry (cell integer, outcome text, proposed text, kept double precision)
  ${where}`;

export const sql = `
CREATE OR REPLACE VIEW cell_outcomes AS
SELECT n.coupon_id, n.stage, n.cell, n.outcome, n.source, n.reading_id,
  CASE WHEN b.outcome = n.outcome THEN b.by_eye ELSE n.by_eye END AS by_eye,
  CASE WHEN b.outcome = n.outcome THEN b.kept ELSE n.kept END AS kept,
  CASE WHEN b.outcome = n.outcome THEN b.kept_limit ELSE n.kept_limit END AS kept_limit,
  n.source = 'again' AS looked_again
FROM (
  SELECT DISTINCT ON (coupon_id, stage, cell) * FROM (${entriesOf('')}) e
  ORDER BY coupon_id, stage, cell, sequence DESC
) n
LEFT JOIN LATERAL (
  SELECT e.outcome, e.by_eye, e.kept, e.kept_limit
  FROM (${entriesOf('WHERE r.coupon_id = n.coupon_id AND r.stage = n.stage')}) e
  WHERE n.source = 'again' AND e.source <> 'again' AND e.cell = n.cell
  ORDER BY e.sequence DESC LIMIT 1
) b ON true;
`;
