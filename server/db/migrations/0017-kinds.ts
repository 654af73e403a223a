/** Store items may be of a shipped kind, and say which of their values are no more than usual for it: those made before are of none. */
export const name = '0017-kinds';

export const sql = `
ALTER TABLE inventory_revisions DISABLE TRIGGER append_only;
UPDATE inventory_revisions SET body = body || '{"ofKind": "", "usual": []}'
  WHERE item_id IN (SELECT id FROM inventory_items
    WHERE kind IN ('machine', 'head', 'lens', 'compound', 'container', 'substrate', 'blank'));
ALTER TABLE inventory_revisions ENABLE TRIGGER append_only;
`;
