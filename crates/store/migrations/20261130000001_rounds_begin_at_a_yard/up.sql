-- Where a company's rounds begin and end, and where its places lie, so that Today can put visits in order without
-- reading a document.
ALTER TABLE accounts
    ADD COLUMN yard_latitude double precision CHECK (yard_latitude BETWEEN -90 AND 90),
    ADD COLUMN yard_longitude double precision CHECK (yard_longitude BETWEEN -180 AND 180),
    ADD CONSTRAINT a_yard_has_both CHECK ((yard_latitude IS NULL) = (yard_longitude IS NULL));
ALTER TABLE places
    ADD COLUMN latitude double precision NOT NULL
        GENERATED ALWAYS AS ((document ->> 'latitude')::double precision) STORED,
    ADD COLUMN longitude double precision NOT NULL
        GENERATED ALWAYS AS ((document ->> 'longitude')::double precision) STORED;

DROP VIEW controller_heads;
CREATE VIEW controller_heads AS
SELECT c.account_id, c.id, c.name, ca.version, c.stations, c.place_id, p.name AS place, pa.version AS place_version,
       p.latitude, p.longitude, p.time_zone, s.revision_id, c.recorded_at, c.last_visit, c.look_again,
       (SELECT array_agg(f.revision_id ORDER BY f.id) FROM series AS f
        WHERE f.account_id = p.account_id AND f.id = ANY (p.further_series)) AS further_revisions
FROM controllers AS c
JOIN aggregates AS ca ON ca.account_id = c.account_id AND ca.id = c.id
JOIN places AS p ON p.account_id = c.account_id AND p.id = c.place_id
JOIN aggregates AS pa ON pa.account_id = p.account_id AND pa.id = p.id
LEFT JOIN series AS s ON s.account_id = p.account_id AND s.id = p.series_id;
