-- Attempts are counted by account, by network address, and by the two together.
ALTER TABLE sign_in_failures RENAME TO sign_in_attempts;
ALTER TABLE sign_in_attempts RENAME COLUMN email TO key;
ALTER TABLE sign_in_attempts ADD CONSTRAINT sign_in_attempts_key_length CHECK (length(key) BETWEEN 1 AND 400);
ALTER INDEX sign_in_failures_email_at RENAME TO sign_in_attempts_key_at;
