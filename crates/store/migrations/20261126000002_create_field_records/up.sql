-- What was written down in the field: a panel as found, a round, a dialling in. Rows are only ever
-- added; the key is made by the client, so that sending twice is harmless.
CREATE TABLE field_records (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    controller_id uuid NOT NULL,
    kind text NOT NULL CHECK (kind IN ('found', 'round', 'dialled')),
    at timestamptz NOT NULL,
    user_id uuid NOT NULL,
    user_name text NOT NULL,
    document jsonb NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, controller_id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id)
);
CREATE INDEX field_records_controller ON field_records (account_id, controller_id, kind, at);
CREATE INDEX field_records_user ON field_records (account_id, user_id);
