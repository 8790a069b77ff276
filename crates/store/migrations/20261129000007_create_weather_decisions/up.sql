-- What was decided about single values of a revision. `daily_weather` has the values that count;
-- `original` is what was read, null where nothing was.
CREATE TABLE weather_decisions (
    account_id uuid NOT NULL,
    revision_id uuid NOT NULL,
    day date NOT NULL,
    element text NOT NULL CHECK (element IN ('tmax_c', 'tmin_c', 'rhmax_pct', 'rhmin_pct', 'rhmean_pct',
        'dewpoint_c', 'wind_ms', 'solar_mj_m2', 'rain_mm')),
    verdict text NOT NULL CHECK (verdict IN ('accepted', 'excluded', 'corrected')),
    original double precision,
    value double precision CHECK ((value IS NOT NULL) = (verdict = 'corrected')),
    reason text NOT NULL CHECK (length(reason) <= 200),
    PRIMARY KEY (account_id, revision_id, day, element),
    FOREIGN KEY (account_id, revision_id) REFERENCES series_revisions (account_id, id)
);
