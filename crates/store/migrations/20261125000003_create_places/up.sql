CREATE TABLE places (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    house_number text NOT NULL CHECK (length(house_number) <= 12),
    latitude_deg double precision NOT NULL CHECK (latitude_deg BETWEEN -90 AND 90),
    longitude_deg double precision NOT NULL CHECK (longitude_deg BETWEEN -180 AND 180),
    elevation_m double precision NOT NULL CHECK (elevation_m BETWEEN -450 AND 6000),
    time_zone text NOT NULL CHECK (length(time_zone) BETWEEN 1 AND 60),
    series_id uuid,
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, series_id) REFERENCES series (account_id, id)
);
CREATE INDEX places_series ON places (account_id, series_id);

CREATE TABLE controllers (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    place_id uuid NOT NULL,
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    station_count smallint NOT NULL CHECK (station_count BETWEEN 1 AND 48),
    percent_min smallint NOT NULL CHECK (percent_min BETWEEN 0 AND 400),
    percent_max smallint NOT NULL CHECK (percent_max BETWEEN 0 AND 400),
    percent_step smallint NOT NULL CHECK (percent_step BETWEEN 1 AND 50),
    percent_storage text NOT NULL CHECK (percent_storage IN ('by_month', 'single')),
    percent_scope text NOT NULL CHECK (percent_scope IN ('all_programs', 'each_program')),
    run_step_s integer NOT NULL CHECK (run_step_s BETWEEN 1 AND 600),
    run_max_s integer NOT NULL CHECK (run_max_s BETWEEN 60 AND 86400),
    watering_days smallint NOT NULL CHECK (watering_days BETWEEN 1 AND 7),
    base_month smallint CHECK (base_month BETWEEN 1 AND 12),
    PRIMARY KEY (account_id, id),
    CHECK (percent_min < percent_max AND 100 BETWEEN percent_min AND percent_max),
    FOREIGN KEY (account_id, id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, place_id) REFERENCES places (account_id, id)
);
CREATE INDEX controllers_place ON controllers (account_id, place_id);

CREATE TABLE programs (
    account_id uuid NOT NULL,
    controller_id uuid NOT NULL,
    letter text NOT NULL CHECK (letter IN ('A', 'B', 'C', 'D')),
    name text NOT NULL CHECK (length(name) <= 60),
    waterings_per_week smallint CHECK (waterings_per_week BETWEEN 1 AND 7),
    count_rain boolean NOT NULL,
    PRIMARY KEY (account_id, controller_id, letter),
    FOREIGN KEY (account_id, controller_id) REFERENCES controllers (account_id, id) ON DELETE CASCADE
);

-- Decisions only: a month without a row is computed.
CREATE TABLE month_plans (
    account_id uuid NOT NULL,
    controller_id uuid NOT NULL,
    letter text NOT NULL,
    month smallint NOT NULL CHECK (month BETWEEN 1 AND 12),
    dial text NOT NULL CHECK (dial ~ '^(computed|off|[0-9]{1,3})$'),
    waterings smallint CHECK (waterings BETWEEN 1 AND 7),
    PRIMARY KEY (account_id, controller_id, letter, month),
    FOREIGN KEY (account_id, controller_id, letter)
        REFERENCES programs (account_id, controller_id, letter) ON DELETE CASCADE
);

CREATE TABLE stations (
    account_id uuid NOT NULL,
    controller_id uuid NOT NULL,
    number smallint NOT NULL CHECK (number BETWEEN 1 AND 48),
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    letter text NOT NULL,
    plant text NOT NULL CHECK (plant IN ('cool_turf', 'warm_turf', 'shrubs', 'annuals', 'trees', 'natives', 'coefficient')),
    coefficient double precision CHECK (coefficient BETWEEN 0.05 AND 1.5),
    sprinkler text NOT NULL CHECK (sprinkler IN ('spray', 'rotor', 'rotary_nozzle', 'drip')),
    rate_mm_per_h double precision CHECK (rate_mm_per_h BETWEEN 1 AND 150),
    uniformity double precision CHECK (uniformity BETWEEN 0.2 AND 1),
    soil text NOT NULL CHECK (soil IN ('clay', 'loam', 'sand')),
    sun text NOT NULL CHECK (sun IN ('open', 'quarter_shade', 'half_shade', 'reflected_heat')),
    roofed boolean NOT NULL,
    area_m2 double precision CHECK (area_m2 BETWEEN 1 AND 200000),
    PRIMARY KEY (account_id, controller_id, number),
    CHECK ((plant = 'coefficient') = (coefficient IS NOT NULL)),
    FOREIGN KEY (account_id, controller_id, letter)
        REFERENCES programs (account_id, controller_id, letter) ON DELETE CASCADE
);
CREATE INDEX stations_program ON stations (account_id, controller_id, letter);
