-- A file that was uploaded for a preview: nothing of it is saved before it is imported.
CREATE TABLE uploads (
    account_id uuid NOT NULL REFERENCES accounts (id),
    id uuid NOT NULL,
    file_name text NOT NULL CHECK (length(file_name) BETWEEN 1 AND 200),
    content bytea NOT NULL,
    created_at timestamptz NOT NULL,
    PRIMARY KEY (account_id, id)
);
CREATE INDEX uploads_created_at ON uploads (account_id, created_at);
