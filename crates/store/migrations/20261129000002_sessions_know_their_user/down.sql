ALTER TABLE sessions
    DROP COLUMN account_id,
    DROP COLUMN user_id,
    DROP COLUMN session_id,
    DROP COLUMN began_at,
    DROP COLUMN used_at,
    DROP COLUMN device,
    DROP COLUMN network;
