DROP INDEX uploads_place;
ALTER TABLE uploads DROP COLUMN typed, DROP COLUMN user_name, DROP COLUMN place_id;
