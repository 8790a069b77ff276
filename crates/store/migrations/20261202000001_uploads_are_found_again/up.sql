-- An uploaded file is found again at the place that it is for, with what was chosen and mended in its preview. A site
-- file is for no place yet.
ALTER TABLE uploads
    ADD COLUMN place_id uuid,
    ADD COLUMN user_name text NOT NULL DEFAULT '' CHECK (length(user_name) <= 120),
    ADD COLUMN typed jsonb NOT NULL DEFAULT '{}' CHECK (jsonb_typeof(typed) = 'object'),
    ADD FOREIGN KEY (account_id, place_id) REFERENCES places (account_id, id) ON DELETE CASCADE;
CREATE INDEX uploads_place ON uploads (account_id, place_id);
