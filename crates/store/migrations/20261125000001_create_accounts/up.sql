-- The company: its key leads every other key and every query.
CREATE TABLE accounts (
    id uuid PRIMARY KEY,
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
    created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE users (
    account_id uuid NOT NULL REFERENCES accounts (id),
    id uuid NOT NULL,
    email text NOT NULL UNIQUE CHECK (email = lower(email) AND length(email) BETWEEN 3 AND 254),
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
    password_hash text NOT NULL,
    units text NOT NULL DEFAULT 'metric' CHECK (units IN ('metric', 'us')),
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (account_id, id)
);

-- Kept by a hash of the cookie's key, so that reading the table gives nobody a session.
CREATE TABLE sessions (
    key_hash bytea PRIMARY KEY,
    state jsonb NOT NULL,
    expires_at timestamptz NOT NULL
);
CREATE INDEX sessions_expires_at ON sessions (expires_at);

CREATE TABLE sign_in_failures (
    id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    email text NOT NULL,
    at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sign_in_failures_email_at ON sign_in_failures (email, at);

-- One row a thing that is saved as a whole: its kind and its version. The row stays when the
-- thing is removed, so that versions never begin again.
CREATE TABLE aggregates (
    account_id uuid NOT NULL REFERENCES accounts (id),
    id uuid NOT NULL,
    kind text NOT NULL CHECK (kind IN ('place', 'controller', 'series')),
    version integer NOT NULL CHECK (version >= 1),
    PRIMARY KEY (account_id, id)
);

-- Who changed what, when and why, with what stood before and after. An action may change several
-- things; undo takes a whole action back.
CREATE TABLE changes (
    account_id uuid NOT NULL,
    id bigint GENERATED ALWAYS AS IDENTITY,
    action_id uuid NOT NULL,
    ordinal smallint NOT NULL CHECK (ordinal >= 0),
    aggregate_id uuid NOT NULL,
    kind text NOT NULL CHECK (kind IN ('place', 'controller', 'series')),
    version integer NOT NULL CHECK (version >= 1),
    at timestamptz NOT NULL,
    user_id uuid NOT NULL,
    user_name text NOT NULL,
    why text NOT NULL,
    before jsonb,
    after jsonb,
    undoes uuid,
    PRIMARY KEY (account_id, id),
    UNIQUE (account_id, action_id, ordinal),
    UNIQUE (account_id, aggregate_id, version),
    FOREIGN KEY (account_id, aggregate_id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id)
);
CREATE INDEX changes_user ON changes (account_id, user_id, id);
CREATE INDEX changes_undoes ON changes (account_id, undoes);
