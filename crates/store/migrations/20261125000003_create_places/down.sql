DROP VIEW sensor_report;
DROP VIEW program_report;
DROP VIEW station_report;
DROP TABLE controllers;
DROP TABLE places;
