-- What somebody did. Its row is written before anything else, so that a form sent twice, or eight times at
-- once, is done once: the others wait for this row, find it, and are led to the same page. The undo line of
-- every page is one row of it.
CREATE TABLE actions (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    ordinal bigint GENERATED ALWAYS AS IDENTITY,
    at timestamptz NOT NULL,
    user_id uuid NOT NULL,
    user_name text NOT NULL,
    why text NOT NULL,
    -- Hash of the form, to tell the same again from something else under the same id.
    digest bytea NOT NULL,
    led_to text NOT NULL CHECK (length(led_to) <= 400),
    undoes uuid,
    can_be_undone boolean NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, user_id) REFERENCES users (account_id, id)
);
CREATE INDEX actions_to_undo ON actions (account_id, user_id, ordinal DESC) WHERE can_be_undone;

INSERT INTO actions (account_id, id, at, user_id, user_name, why, digest, led_to, undoes, can_be_undone)
SELECT account_id, action_id, at, user_id, user_name, why, '', '/', undoes,
       undoes IS NULL AND NOT EXISTS (
           SELECT FROM changes AS undoing
           WHERE undoing.account_id = first.account_id AND undoing.undoes = first.action_id
       )
FROM changes AS first
WHERE ordinal = 0
ORDER BY id;

-- What stood before a change is what the change before it left; when, who and why are the action's.
DROP INDEX changes_user;
DROP INDEX changes_undoes;
ALTER TABLE changes
    DROP COLUMN id,
    DROP COLUMN at,
    DROP COLUMN user_id,
    DROP COLUMN user_name,
    DROP COLUMN why,
    DROP COLUMN before,
    DROP COLUMN undoes,
    DROP CONSTRAINT changes_account_id_aggregate_id_version_key,
    ADD PRIMARY KEY (account_id, aggregate_id, version),
    ADD FOREIGN KEY (account_id, action_id) REFERENCES actions (account_id, id);
