ALTER TABLE sessions
    ALTER COLUMN account_id DROP NOT NULL,
    ALTER COLUMN user_id DROP NOT NULL,
    ALTER COLUMN session_id DROP NOT NULL,
    ADD CONSTRAINT sessions_owner
        CHECK ((account_id IS NULL) = (user_id IS NULL) AND (user_id IS NULL) = (session_id IS NULL));
ALTER TABLE accounts DROP COLUMN keep_log_months;
DROP TABLE password_links;
ALTER TABLE users DROP COLUMN role, DROP COLUMN left_at;
