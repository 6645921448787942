-- How long air that was read by hand counts beside a logger's, and the unit that temperatures are shown in.
ALTER TABLE shop
  ADD COLUMN hand_air_min SMALLINT UNSIGNED NOT NULL DEFAULT 15 CHECK (hand_air_min BETWEEN 1 AND 480),
  ADD COLUMN temperature_unit ENUM('C','F') NOT NULL DEFAULT 'C';
