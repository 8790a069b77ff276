-- What a person may do: a lead everything, a technician all but the people and the company's settings, a
-- reader nothing but read. One who left keeps the name on what was done, and no longer signs in.
ALTER TABLE users
    ADD COLUMN role text NOT NULL DEFAULT 'lead' CHECK (role IN ('lead', 'technician', 'reader')),
    ADD COLUMN left_at timestamptz;
ALTER TABLE users ALTER COLUMN role DROP DEFAULT;

-- A link by which a person sets a password, once; kept by the hash of its key. A new one replaces the old.
CREATE TABLE password_links (
    account_id uuid NOT NULL,
    user_id uuid NOT NULL,
    key_hash bytea NOT NULL UNIQUE,
    expires_at timestamptz NOT NULL,
    PRIMARY KEY (account_id, user_id),
    FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id)
);

-- How long the log keeps what was changed; for ever where nothing is stated.
ALTER TABLE accounts ADD COLUMN keep_log_months integer CHECK (keep_log_months BETWEEN 1 AND 1200);

-- Sessions belong to somebody: the sign-in page keeps none.
DELETE FROM sessions WHERE user_id IS NULL;
ALTER TABLE sessions
    DROP CONSTRAINT sessions_owner,
    ALTER COLUMN account_id SET NOT NULL,
    ALTER COLUMN user_id SET NOT NULL,
    ALTER COLUMN session_id SET NOT NULL;
