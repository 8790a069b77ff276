DROP TABLE field_records;
