/** A program to the controller is kept before it is sent, and sent once by whoever holds its lease. */
export const name = '0011-device-jobs';

export const sql = `
ALTER TABLE burns DROP CONSTRAINT burns_state_check;
-- "Dropped" stood for a controller that does not answer as well as for one that speaks of something else: nobody knows which any more.
UPDATE burns SET state = 'unknown' WHERE state = 'dropped';
-- What was under way is asked of the controller anew; whoever does so finds out.
ALTER TABLE burns
  ADD CONSTRAINT burns_state_check CHECK (state IN ('queued', 'sending', 'running', 'paused', 'waiting', 'silent', 'unknown',
    'stopped', 'not sent', 'nothing', 'partly', 'done')),
  ADD COLUMN cells_cut jsonb NOT NULL DEFAULT '[]',
  ADD COLUMN heard boolean NOT NULL DEFAULT true,
  ADD COLUMN holder uuid,
  ADD COLUMN lease_until timestamptz,
  ADD COLUMN send_before timestamptz,
  ADD COLUMN sent_at timestamptz,
  ADD COLUMN asked text CHECK (asked IN ('pause', 'resume', 'stop')),
  ADD COLUMN asked_at timestamptz,
  ADD COLUMN asked_by_id uuid REFERENCES operators (id),
  ADD COLUMN settled_by_id uuid REFERENCES operators (id),
  ADD COLUMN air text CHECK (air IN ('off', 'on', 'changed')),
  ADD COLUMN extraction text CHECK (extraction IN ('off', 'on', 'changed')),
  ADD COLUMN fault text NOT NULL DEFAULT '';

-- One head fires one program at a time, whoever asks.
CREATE UNIQUE INDEX burns_one_at_a_time ON burns ((true))
  WHERE state IN ('queued', 'sending', 'running', 'paused', 'waiting', 'silent');
`;
