-- A room may have a logger of its own; the name it goes by. None: the air of the shop, and outdoors the weather.
ALTER TABLE room ADD COLUMN logger VARCHAR(40) NOT NULL DEFAULT '';
-- None: the air of the shop. A reading outlives the room in which it was made.
ALTER TABLE climate_reading
  ADD COLUMN logger VARCHAR(40) NOT NULL DEFAULT '' AFTER source,
  DROP KEY at, ADD KEY logger_at (logger, at);
-- The weather as it was last foretold, by the hour.
CREATE TABLE weather_hour (
  at DATETIME PRIMARY KEY,
  temperature_C DECIMAL(4,1) NOT NULL, rh DECIMAL(4,3) NOT NULL CHECK (rh > 0 AND rh <= 1),
  rain_mm DECIMAL(5,1) NOT NULL CHECK (rain_mm >= 0),
  simulated BOOLEAN NOT NULL, read_at DATETIME(3) NOT NULL
);
