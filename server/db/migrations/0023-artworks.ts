/**
 * What a ticket's pieces are marked with: files of artwork as brought, how they lie on the piece with the texts that change from piece to piece, and
 * what rows over them come to, which a ticket's times go by.
 */
export const name = '0023-artworks';

export const sql = `
CREATE TABLE artworks (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  file_hash text NOT NULL REFERENCES stored_files (hash),
  name text NOT NULL,
  kind text NOT NULL CHECK (kind IN ('SVG', 'DXF', 'G-code', 'picture')),
  entered jsonb NOT NULL,
  measure jsonb NOT NULL,
  said jsonb NOT NULL DEFAULT '[]',
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX artworks_ticket ON artworks (ticket_id, sequence DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON artworks FOR EACH ROW EXECUTE FUNCTION refuse_change();

CREATE TABLE layouts (
  id uuid PRIMARY KEY,
  ticket_id uuid NOT NULL REFERENCES tickets (id),
  artwork_id uuid REFERENCES artworks (id),
  entered jsonb NOT NULL,
  measure jsonb NOT NULL,
  sequence bigint NOT NULL DEFAULT nextval('happened'),
  at timestamptz NOT NULL,
  by_id uuid NOT NULL REFERENCES operators (id)
);
CREATE INDEX layouts_ticket ON layouts (ticket_id, sequence DESC);
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON layouts FOR EACH ROW EXECUTE FUNCTION refuse_change();

ALTER TABLE tickets ADD COLUMN layout_id uuid REFERENCES layouts (id);
ALTER TABLE tickets ADD COLUMN swept_width_mm double precision CHECK (swept_width_mm > 0);
ALTER TABLE tickets ADD COLUMN swept_height_mm double precision CHECK (swept_height_mm > 0);
ALTER TABLE markings ADD COLUMN layout_id uuid REFERENCES layouts (id);
`;
