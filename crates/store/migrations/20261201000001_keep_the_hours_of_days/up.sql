-- The hours of a local day as a station measured them, in SI; the values of an hour stand at the same place of every
-- array. They belong to the import that brought them and are never changed or copied: a later import of the series
-- says for each day which import's hours still count.
CREATE TABLE weather_hours (
    account_id uuid NOT NULL,
    revision_id uuid NOT NULL,
    day date NOT NULL,
    starts timestamptz[] NOT NULL CHECK (cardinality(starts) BETWEEN 1 AND 25),
    -- Of the clock by which the day is the local one.
    utc_offset_s integer[] NOT NULL CHECK (cardinality(utc_offset_s) = cardinality(starts)),
    temp_c double precision[] NOT NULL CHECK (cardinality(temp_c) = cardinality(starts)),
    rh_pct double precision[] NOT NULL CHECK (cardinality(rh_pct) = cardinality(starts)),
    wind_ms double precision[] NOT NULL CHECK (cardinality(wind_ms) = cardinality(starts)),
    solar_mj_m2 double precision[] NOT NULL CHECK (cardinality(solar_mj_m2) = cardinality(starts)),
    rain_mm double precision[] NOT NULL CHECK (cardinality(rain_mm) = cardinality(starts)),
    PRIMARY KEY (account_id, revision_id, day),
    FOREIGN KEY (account_id, revision_id) REFERENCES series_revisions (account_id, id)
);

-- The import whose hours are those of the day; null where only the day is known.
ALTER TABLE daily_weather ADD COLUMN hours_of uuid;
ALTER TABLE daily_weather ADD FOREIGN KEY (account_id, hours_of) REFERENCES series_revisions (account_id, id);

-- For people who ask with SQL: the hours that count, a row each.
CREATE VIEW hour_report AS
SELECT s.account_id, s.id AS series_id, s.name AS series, d.day, hour.*
FROM series s
JOIN daily_weather d ON d.account_id = s.account_id AND d.revision_id = s.revision_id
JOIN weather_hours h ON h.account_id = d.account_id AND h.revision_id = d.hours_of AND h.day = d.day
CROSS JOIN LATERAL unnest(h.starts, h.temp_c, h.rh_pct, h.wind_ms, h.solar_mj_m2, h.rain_mm)
    AS hour (starts_at, temp_c, rh_pct, wind_ms, solar_mj_m2, rain_mm);
