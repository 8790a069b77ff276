DROP TABLE changes;
DROP TABLE aggregates;
DROP TABLE sign_in_failures;
DROP TABLE sessions;
DROP TABLE users;
DROP TABLE accounts;
