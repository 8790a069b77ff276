ALTER TABLE changes
    DROP CONSTRAINT changes_pkey,
    DROP CONSTRAINT changes_account_id_action_id_fkey,
    ADD COLUMN id bigint GENERATED ALWAYS AS IDENTITY,
    ADD COLUMN at timestamptz,
    ADD COLUMN user_id uuid,
    ADD COLUMN user_name text,
    ADD COLUMN why text,
    ADD COLUMN before jsonb,
    ADD COLUMN undoes uuid;
UPDATE changes
SET at = a.at, user_id = a.user_id, user_name = a.user_name, why = a.why, undoes = a.undoes
FROM actions AS a
WHERE a.account_id = changes.account_id AND a.id = changes.action_id;
UPDATE changes
SET before = earlier.after
FROM changes AS earlier
WHERE earlier.account_id = changes.account_id AND earlier.aggregate_id = changes.aggregate_id
  AND earlier.version = changes.version - 1;
ALTER TABLE changes
    ALTER COLUMN at SET NOT NULL,
    ALTER COLUMN user_id SET NOT NULL,
    ALTER COLUMN user_name SET NOT NULL,
    ALTER COLUMN why SET NOT NULL,
    ADD PRIMARY KEY (account_id, id),
    ADD UNIQUE (account_id, aggregate_id, version),
    ADD FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id);
CREATE INDEX changes_user ON changes (account_id, user_id, id);
CREATE INDEX changes_undoes ON changes (account_id, undoes);
DROP TABLE actions;
