-- What lists across places sort and filter by, kept with the controller in the transaction that adds a record
-- of the field: when anything was last written down, the last visit, and when to look again, as the newer of
-- the last round and the last dialling says. Columns that the document holds follow it by themselves.
ALTER TABLE controllers
    ADD COLUMN recorded_at timestamptz,
    ADD COLUMN last_visit date,
    ADD COLUMN look_again date,
    ADD COLUMN look_again_at timestamptz,
    ADD COLUMN stations integer NOT NULL GENERATED ALWAYS AS (jsonb_array_length(document -> 'stations')) STORED;
ALTER TABLE places ADD COLUMN time_zone text NOT NULL GENERATED ALWAYS AS (document ->> 'time_zone') STORED;
CREATE INDEX controllers_look_again ON controllers (account_id, look_again, name, id);
CREATE INDEX controllers_name ON controllers (account_id, name, id);
CREATE INDEX places_name ON places (account_id, name, id);

UPDATE controllers AS c
SET recorded_at = r.recorded_at, last_visit = r.last_visit
FROM (
    SELECT account_id, controller_id, max(at) AS recorded_at,
           max(left(coalesce(document ->> 'on', document ->> 'seen_at'), 10)::date) AS last_visit
    FROM field_records
    GROUP BY account_id, controller_id
) AS r
WHERE r.account_id = c.account_id AND r.controller_id = c.id;
UPDATE controllers AS c
SET look_again = r.look_again, look_again_at = r.at
FROM (
    SELECT DISTINCT ON (account_id, controller_id) account_id, controller_id, at,
           (document ->> 'look_again')::date AS look_again
    FROM field_records
    WHERE kind IN ('round', 'dialled')
    ORDER BY account_id, controller_id, at DESC
) AS r
WHERE r.account_id = c.account_id AND r.controller_id = c.id;

-- What lists of controllers show, and what every page asks of its user: as views, so that the application asks
-- with statements that are prepared once.
CREATE VIEW controller_heads AS
SELECT c.account_id, c.id, c.name, ca.version, c.stations, c.place_id, p.name AS place, pa.version AS place_version,
       p.time_zone, s.revision_id, c.recorded_at, c.last_visit, c.look_again
FROM controllers AS c
JOIN aggregates AS ca ON ca.account_id = c.account_id AND ca.id = c.id
JOIN places AS p ON p.account_id = c.account_id AND p.id = c.place_id
JOIN aggregates AS pa ON pa.account_id = p.account_id AND pa.id = p.id
LEFT JOIN series AS s ON s.account_id = p.account_id AND s.id = p.series_id;

CREATE VIEW visitors AS
SELECT u.account_id, a.name AS account_name, u.id, u.email, u.name, u.password_hash, u.units, u.role,
       newest.id AS action_id, newest.at AS action_at, newest.why AS action_why
FROM users AS u
JOIN accounts AS a ON a.id = u.account_id
LEFT JOIN LATERAL (
    SELECT id, at, why FROM actions
    WHERE account_id = u.account_id AND user_id = u.id AND can_be_undone
    ORDER BY ordinal DESC LIMIT 1
) AS newest ON true
WHERE u.left_at IS NULL;
