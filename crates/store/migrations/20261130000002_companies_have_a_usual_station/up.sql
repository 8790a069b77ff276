-- What a new station is taken for where nothing else is known of it: a station of the site file, without what is its own.
ALTER TABLE accounts
    ADD COLUMN usual_station jsonb CHECK (jsonb_typeof(usual_station) = 'object');
