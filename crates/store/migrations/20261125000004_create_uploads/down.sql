DROP TABLE uploads;
