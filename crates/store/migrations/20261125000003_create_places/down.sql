DROP TABLE stations;
DROP TABLE month_plans;
DROP TABLE programs;
DROP TABLE controllers;
DROP TABLE places;
