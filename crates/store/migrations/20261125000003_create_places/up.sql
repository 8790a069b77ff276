-- Places and controllers are stored as their versioned documents, beside the few columns that
-- queries need. The application writes both in one statement; docs/decisions/0010 says why.
CREATE TABLE places (
    account_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    series_id uuid,
    document jsonb NOT NULL CHECK (document ->> 'version' ~ '^[0-9]+$'),
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
    document jsonb NOT NULL CHECK (document ->> 'version' ~ '^[0-9]+$'),
    PRIMARY KEY (account_id, id),
    FOREIGN KEY (account_id, id) REFERENCES aggregates (account_id, id),
    FOREIGN KEY (account_id, place_id) REFERENCES places (account_id, id)
);
CREATE INDEX controllers_place ON controllers (account_id, place_id);

-- For people who ask with SQL: one row a station, a program, a sensor. The columns are those that
-- reports sort and sum by; `fields` holds everything, under the names of the site file.
CREATE VIEW station_report AS
SELECT c.account_id, p.id AS place_id, p.name AS place, c.id AS controller_id, c.name AS controller,
       (s ->> 'number')::integer AS number, s ->> 'name' AS name, s ->> 'program' AS program,
       s ->> 'plant' AS plant, s ->> 'sprinkler' AS sprinkler, s ->> 'soil' AS soil,
       (s ->> 'rate_mm_h')::double precision AS rate_mm_per_h,
       (s ->> 'area_m2')::double precision AS area_m2, s AS fields
FROM controllers c
JOIN places p ON p.account_id = c.account_id AND p.id = c.place_id
CROSS JOIN LATERAL jsonb_array_elements(c.document -> 'stations') AS s;

CREATE VIEW program_report AS
SELECT c.account_id, p.id AS place_id, p.name AS place, c.id AS controller_id, c.name AS controller,
       g ->> 'letter' AS letter, g ->> 'name' AS name,
       (g ->> 'waterings_per_week')::integer AS waterings_per_week,
       g -> 'schedule' -> 'starts' AS starts, g AS fields
FROM controllers c
JOIN places p ON p.account_id = c.account_id AND p.id = c.place_id
CROSS JOIN LATERAL jsonb_array_elements(c.document -> 'programs') AS g;

CREATE VIEW sensor_report AS
SELECT c.account_id, p.id AS place_id, p.name AS place, c.id AS controller_id, c.name AS controller,
       (x ->> 'id')::integer AS id, x -> 'setting' ->> 'kind' AS kind, x ->> 'place' AS mounted_at,
       (x ->> 'battery_on')::date AS battery_on, (x -> 'proven' ->> 'on')::date AS proven_on, x AS fields
FROM controllers c
JOIN places p ON p.account_id = c.account_id AND p.id = c.place_id
CROSS JOIN LATERAL jsonb_array_elements(c.document -> 'sensors') AS x;
