-- One import, or one typing of twelve normals: never changed, so that undo is pointing back.
CREATE TABLE series_revisions (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    series_id uuid NOT NULL,
    source text NOT NULL,
    input_hash bytea NOT NULL,
    method_version integer NOT NULL,
    first_day date,
    last_day date,
    day_count integer NOT NULL CHECK (day_count >= 0),
    method text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, series_id) REFERENCES aggregates (account_id, id)
);
CREATE INDEX series_revisions_series ON series_revisions (account_id, series_id);

CREATE TABLE series (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    latitude_deg double precision NOT NULL CHECK (latitude_deg BETWEEN -90 AND 90),
    longitude_deg double precision NOT NULL CHECK (longitude_deg BETWEEN -180 AND 180),
    elevation_m double precision NOT NULL CHECK (elevation_m BETWEEN -450 AND 6000),
    wind_height_m double precision NOT NULL CHECK (wind_height_m BETWEEN 0.5 AND 200),
    revision_id uuid NOT NULL,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, revision_id) REFERENCES series_revisions (account_id, id)
);
CREATE INDEX series_revision ON series (account_id, revision_id);

-- Observations as they were read, in SI.
CREATE TABLE daily_weather (
    account_id uuid NOT NULL,
    revision_id uuid NOT NULL,
    day date NOT NULL,
    tmax_c double precision CHECK (tmax_c BETWEEN -90 AND 60),
    tmin_c double precision CHECK (tmin_c BETWEEN -90 AND 60),
    rhmax_pct double precision CHECK (rhmax_pct BETWEEN 0 AND 105),
    rhmin_pct double precision CHECK (rhmin_pct BETWEEN 0 AND 105),
    rhmean_pct double precision CHECK (rhmean_pct BETWEEN 0 AND 105),
    dewpoint_c double precision CHECK (dewpoint_c BETWEEN -90 AND 60),
    wind_ms double precision CHECK (wind_ms BETWEEN 0 AND 60),
    solar_mj_m2 double precision CHECK (solar_mj_m2 BETWEEN 0 AND 50),
    rain_mm double precision CHECK (rain_mm BETWEEN 0 AND 2000),
    PRIMARY KEY (account_id, revision_id, day),
    FOREIGN KEY (account_id, revision_id) REFERENCES series_revisions (account_id, id)
);

-- Derived: the only derived figures that are kept, always written with what they derive from.
CREATE TABLE daily_et0 (
    account_id uuid NOT NULL,
    revision_id uuid NOT NULL,
    day date NOT NULL,
    et0_mm double precision NOT NULL CHECK (et0_mm BETWEEN -20 AND 60),
    method text NOT NULL,
    PRIMARY KEY (account_id, revision_id, day),
    FOREIGN KEY (account_id, revision_id) REFERENCES series_revisions (account_id, id)
);

-- `variant` is empty for the normals themselves, else the guess that was changed to get them.
CREATE TABLE monthly_normals (
    account_id uuid NOT NULL,
    revision_id uuid NOT NULL,
    variant text NOT NULL,
    month smallint NOT NULL CHECK (month BETWEEN 1 AND 12),
    et0_mm_per_day double precision NOT NULL CHECK (et0_mm_per_day BETWEEN 0 AND 60),
    rain_mm double precision CHECK (rain_mm BETWEEN 0 AND 62000),
    PRIMARY KEY (account_id, revision_id, variant, month),
    FOREIGN KEY (account_id, revision_id) REFERENCES series_revisions (account_id, id)
);
