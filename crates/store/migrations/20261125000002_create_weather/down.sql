DROP TABLE monthly_normals;
DROP TABLE daily_et0;
DROP TABLE daily_weather;
DROP TABLE series;
DROP TABLE series_revisions;
