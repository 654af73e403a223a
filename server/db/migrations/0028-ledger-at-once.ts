/**
 * Rows of the ledger are noted once for all that a statement brings, not run by run; and a file of many runs, which brings runs and what
 * followed them in turn, has them noted once at its end: while unto.ledger says 'later' nothing is noted, and whoever set it notes them by
 * note_runs_in_ledger in the same transaction. What a row holds stays as it was. What was tried on a substrate is found by an index.
 */
export const name = '0028-ledger-at-once';

const follows = (of: string) => `
CREATE OR REPLACE FUNCTION ${of}() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF current_setting('unto.ledger', true) IS DISTINCT FROM 'later' THEN
    PERFORM note_runs_in_ledger(ARRAY(SELECT ${of === 'run_in_ledger' ? 'id' : 'DISTINCT run_id'} FROM made));
  END IF;
  RETURN NULL;
END $$;`;

const trigger = (table: string, does: string) => `
DROP TRIGGER in_ledger ON ${table};
CREATE TRIGGER in_ledger AFTER INSERT ON ${table} REFERENCING NEW TABLE AS made FOR EACH STATEMENT EXECUTE FUNCTION ${does}();`;

export const sql = `
CREATE FUNCTION note_runs_in_ledger(noted uuid[]) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO ledger_rows
  SELECT l.* FROM unnest(noted) AS m (id) CROSS JOIN LATERAL (SELECT * FROM ledger_row_of o WHERE o.id = m.id OFFSET 0) l
  ON CONFLICT (id) DO UPDATE SET judged = EXCLUDED.judged, faulty = EXCLUDED.faulty, words = EXCLUDED.words;
END $$;
${follows('run_in_ledger')}
${follows('follow_up_in_ledger')}
${trigger('runs', 'run_in_ledger')}
${trigger('judgements', 'follow_up_in_ledger')}
${trigger('cleanings', 'follow_up_in_ledger')}
CREATE INDEX ledger_rows_tried ON ledger_rows (substrate_id, compound_id, head_id);
`;
