-- Mean highs and lows, where the reference ET of a month was worked out from those.
ALTER TABLE monthly_normals
    ADD COLUMN tmax_c double precision CHECK (tmax_c BETWEEN -90 AND 60),
    ADD COLUMN tmin_c double precision CHECK (tmin_c BETWEEN -90 AND 60),
    ADD CONSTRAINT monthly_normals_both_temperatures CHECK ((tmax_c IS NULL) = (tmin_c IS NULL) AND tmin_c <= tmax_c);
