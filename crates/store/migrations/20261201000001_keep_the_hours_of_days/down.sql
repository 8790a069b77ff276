DROP VIEW hour_report;
ALTER TABLE daily_weather DROP COLUMN hours_of;
DROP TABLE weather_hours;
