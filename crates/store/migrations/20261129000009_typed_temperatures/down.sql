ALTER TABLE monthly_normals
    DROP CONSTRAINT monthly_normals_both_temperatures,
    DROP COLUMN tmax_c,
    DROP COLUMN tmin_c;
