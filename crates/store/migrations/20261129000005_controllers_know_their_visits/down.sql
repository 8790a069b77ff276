DROP VIEW visitors;
DROP VIEW controller_heads;
DROP INDEX places_name;
DROP INDEX controllers_name;
DROP INDEX controllers_look_again;
ALTER TABLE controllers
    DROP COLUMN recorded_at,
    DROP COLUMN last_visit,
    DROP COLUMN look_again,
    DROP COLUMN look_again_at,
    DROP COLUMN stations;
ALTER TABLE places DROP COLUMN time_zone;
