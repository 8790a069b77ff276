ALTER TABLE accounts DROP COLUMN usual_station;
