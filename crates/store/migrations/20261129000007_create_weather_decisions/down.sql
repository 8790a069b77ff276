DROP TABLE weather_decisions;
