-- Version 4 of the documents keeps what a sensor is set to among its other fields; version 3 kept it apart.
CREATE OR REPLACE VIEW sensor_report AS
SELECT c.account_id, p.id AS place_id, p.name AS place, c.id AS controller_id, c.name AS controller,
       (x ->> 'id')::integer AS id, coalesce(x ->> 'kind', x -> 'setting' ->> 'kind') AS kind, x ->> 'place' AS mounted_at,
       (x ->> 'battery_on')::date AS battery_on, coalesce(x ->> 'proven_on', x -> 'proven' ->> 'on')::date AS proven_on, x AS fields
FROM controllers c
JOIN places p ON p.account_id = c.account_id AND p.id = c.place_id
CROSS JOIN LATERAL jsonb_array_elements(c.document -> 'sensors') AS x;
