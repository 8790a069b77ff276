DROP TABLE snoozes;
