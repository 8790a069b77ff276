ALTER INDEX sign_in_attempts_key_at RENAME TO sign_in_failures_email_at;
ALTER TABLE sign_in_attempts DROP CONSTRAINT sign_in_attempts_key_length;
ALTER TABLE sign_in_attempts RENAME COLUMN key TO email;
ALTER TABLE sign_in_attempts RENAME TO sign_in_failures;
