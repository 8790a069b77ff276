-- Rules of the place. Sets of weekdays are bits, Monday the lowest: one set for `weekdays`, two for
-- `parity` (odd, even), ten for `last_digit`. Closed hours are pairs of minutes of the day.
ALTER TABLE places
    ADD COLUMN day_rule text NOT NULL DEFAULT 'any' CHECK (day_rule IN ('any', 'weekdays', 'parity', 'last_digit')),
    ADD COLUMN day_rule_days smallint[] NOT NULL DEFAULT '{}',
    ADD COLUMN never_days smallint NOT NULL DEFAULT 0 CHECK (never_days BETWEEN 0 AND 127),
    ADD COLUMN closed_hours_min smallint[] NOT NULL DEFAULT '{}',
    ADD COLUMN ban_from date,
    ADD COLUMN ban_to date,
    ADD COLUMN rules_authority text NOT NULL DEFAULT '' CHECK (length(rules_authority) <= 60),
    ADD COLUMN rules_dated date,
    ADD CHECK (cardinality(day_rule_days) = CASE day_rule WHEN 'any' THEN 0 WHEN 'weekdays' THEN 1 WHEN 'parity' THEN 2 ELSE 10 END),
    ADD CHECK (cardinality(closed_hours_min) IN (0, 2, 4, 6, 8)),
    ADD CHECK ((ban_from IS NULL) = (ban_to IS NULL) AND (ban_from IS NULL OR ban_from <= ban_to));

ALTER TABLE controllers
    ADD COLUMN program_count smallint NOT NULL DEFAULT 3 CHECK (program_count BETWEEN 1 AND 4),
    ADD COLUMN start_count smallint NOT NULL DEFAULT 4 CHECK (start_count BETWEEN 1 AND 16),
    ADD COLUMN start_step_min smallint NOT NULL DEFAULT 15 CHECK (start_step_min BETWEEN 1 AND 60),
    ADD COLUMN odd_even boolean NOT NULL DEFAULT true,
    ADD COLUMN every_max_days smallint NOT NULL DEFAULT 0 CHECK (every_max_days BETWEEN 0 AND 31),
    ADD COLUMN has_never_days boolean NOT NULL DEFAULT false,
    ADD COLUMN cycle_soak boolean NOT NULL DEFAULT false,
    ADD COLUMN station_delay_max_s integer NOT NULL DEFAULT 0 CHECK (station_delay_max_s BETWEEN 0 AND 14400),
    ADD COLUMN sensor_inputs smallint NOT NULL DEFAULT 1 CHECK (sensor_inputs BETWEEN 0 AND 16),
    ADD COLUMN contact text NOT NULL DEFAULT 'normally_closed' CHECK (contact IN ('normally_closed', 'normally_open')),
    ADD COLUMN rain_delay_max_days smallint NOT NULL DEFAULT 3 CHECK (rain_delay_max_days BETWEEN 0 AND 31),
    ADD COLUMN station_delay_s integer NOT NULL DEFAULT 0 CHECK (station_delay_s BETWEEN 0 AND 14400);

ALTER TABLE programs
    ADD COLUMN day_mode text NOT NULL DEFAULT 'weekdays' CHECK (day_mode IN ('weekdays', 'odd', 'even', 'every')),
    ADD COLUMN weekdays smallint NOT NULL DEFAULT 0 CHECK (weekdays BETWEEN 0 AND 127),
    ADD COLUMN every_days smallint CHECK (every_days BETWEEN 1 AND 31),
    ADD COLUMN every_next date,
    ADD COLUMN never_days smallint NOT NULL DEFAULT 0 CHECK (never_days BETWEEN 0 AND 127),
    ADD COLUMN starts_min smallint[] NOT NULL DEFAULT '{}' CHECK (cardinality(starts_min) <= 16),
    ADD COLUMN split smallint NOT NULL DEFAULT 1 CHECK (split BETWEEN 1 AND 16),
    ADD CHECK ((day_mode = 'every') = (every_days IS NOT NULL) AND (every_days IS NULL) = (every_next IS NULL));

ALTER TABLE stations
    ADD COLUMN slope text NOT NULL DEFAULT 'level' CHECK (slope IN ('level', 'gentle', 'moderate', 'steep')),
    ADD COLUMN run_s integer CHECK (run_s BETWEEN 0 AND 86400),
    ADD COLUMN cycle_s integer CHECK (cycle_s BETWEEN 1 AND 86400),
    ADD COLUMN soak_s integer CHECK (soak_s BETWEEN 0 AND 86400),
    ADD COLUMN also_letter text CHECK (also_letter IN ('A', 'B', 'C', 'D')),
    ADD CHECK ((cycle_s IS NULL) = (soak_s IS NULL));

-- The unused columns of another kind are null.
CREATE TABLE sensors (
    account_id uuid NOT NULL,
    controller_id uuid NOT NULL,
    ordinal smallint NOT NULL CHECK (ordinal BETWEEN 0 AND 31),
    kind text NOT NULL CHECK (kind IN ('rain', 'freeze', 'soil_moisture', 'et')),
    place text NOT NULL CHECK (length(place) BETWEEN 1 AND 60),
    battery text NOT NULL CHECK (length(battery) <= 60),
    battery_on date,
    contact text NOT NULL CHECK (contact IN ('normally_closed', 'normally_open')),
    jumper_removed boolean NOT NULL,
    input smallint NOT NULL CHECK (input BETWEEN 1 AND 16),
    exempt smallint[] NOT NULL,
    proven_on date,
    proven_how text,
    -- mm, °C or percent, by the kind
    settings double precision[] NOT NULL,
    set_at double precision,
    delay_days smallint CHECK (delay_days BETWEEN 0 AND 14),
    vent text CHECK (vent IN ('open', 'half', 'closed')),
    et_class smallint CHECK (et_class BETWEEN 1 AND 6),
    et_trim smallint CHECK (et_trim BETWEEN 1 AND 5),
    et_programs text,
    reading_at timestamp[] NOT NULL,
    reading_pct double precision[] NOT NULL,
    PRIMARY KEY (account_id, controller_id, ordinal),
    CHECK ((kind = 'rain') = (delay_days IS NOT NULL AND vent IS NOT NULL)),
    CHECK ((kind = 'et') = (et_class IS NOT NULL AND et_trim IS NOT NULL AND et_programs IS NOT NULL)),
    CHECK ((proven_on IS NULL) = (proven_how IS NULL)),
    CHECK (cardinality(reading_at) = cardinality(reading_pct)),
    FOREIGN KEY (account_id, controller_id) REFERENCES controllers (account_id, id) ON DELETE CASCADE
);

CREATE TABLE temporaries (
    account_id uuid NOT NULL,
    controller_id uuid NOT NULL,
    ordinal smallint NOT NULL CHECK (ordinal BETWEEN 0 AND 255),
    kind text NOT NULL CHECK (kind IN ('percent', 'rain_delay', 'bypass', 'off')),
    letter text CHECK (letter IN ('A', 'B', 'C', 'D')),
    percent smallint CHECK (percent BETWEEN 0 AND 400),
    sensor smallint CHECK (sensor BETWEEN 0 AND 31),
    since date NOT NULL,
    until date NOT NULL,
    reason text NOT NULL CHECK (length(reason) BETWEEN 1 AND 200),
    by_name text NOT NULL,
    PRIMARY KEY (account_id, controller_id, ordinal),
    CHECK (since <= until),
    CHECK ((kind = 'percent') = (percent IS NOT NULL)),
    CHECK ((kind = 'bypass') = (sensor IS NOT NULL)),
    FOREIGN KEY (account_id, controller_id) REFERENCES controllers (account_id, id) ON DELETE CASCADE
);
