/** Pictures of dry coats, read cell by cell. */
export const name = '0006-picture';

export const sql = `
CREATE TABLE coat_pictures (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  weighing_id uuid REFERENCES weighings (id),
  entries jsonb NOT NULL,
  judgement jsonb NOT NULL,
  decision text NOT NULL CHECK (decision IN ('accepted', 'touch up', 'rinsed off')),
  note text NOT NULL,
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX coat_pictures_ticket ON coat_pictures (ticket_id, at);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON coat_pictures FOR EACH ROW EXECUTE FUNCTION refuse_change();
`;
