-- A session knows whose it is, so that its user can see it and end it, and a new password ends it.
ALTER TABLE sessions
    ADD COLUMN account_id uuid,
    ADD COLUMN user_id uuid,
    ADD COLUMN session_id uuid,
    ADD COLUMN began_at timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN used_at timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN device text NOT NULL DEFAULT '' CHECK (device IN ('', 'phone', 'computer')),
    ADD COLUMN network text NOT NULL DEFAULT '' CHECK (length(network) <= 64),
    ADD CONSTRAINT sessions_owner CHECK ((account_id IS NULL) = (user_id IS NULL) AND (user_id IS NULL) = (session_id IS NULL)),
    ADD CONSTRAINT sessions_user_fkey FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id);
CREATE INDEX sessions_user ON sessions (account_id, user_id);
-- Sessions from before do not tell whose they are: everybody signs in once more.
DELETE FROM sessions;
