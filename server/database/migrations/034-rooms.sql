-- Rooms instead of a switch, what stands in them, and when people are there.
CREATE TABLE room (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) NOT NULL UNIQUE,
  dust BOOLEAN NOT NULL, wet BOOLEAN NOT NULL, other BOOLEAN NOT NULL,
  outdoors BOOLEAN NOT NULL DEFAULT FALSE,
  one_at_a_time BOOLEAN NOT NULL DEFAULT FALSE,
  change_over_min SMALLINT UNSIGNED NOT NULL DEFAULT 30 CHECK (change_over_min <= 1440),
  length_mm DECIMAL(9,2) NULL CHECK (length_mm > 0), length_text VARCHAR(40) NOT NULL DEFAULT '',
  volume_m3 DECIMAL(8,1) NULL CHECK (volume_m3 > 0), air_changes_h DECIMAL(5,1) NULL CHECK (air_changes_h > 0),
  row_version INT UNSIGNED NOT NULL DEFAULT 1
);
INSERT INTO room (name, dust, wet, other)
  SELECT 'Workshop', TRUE, COALESCE((SELECT one_room FROM shop WHERE id = 1), FALSE), TRUE;
INSERT INTO room (name, dust, wet, other, one_at_a_time)
  SELECT 'Finishing room', FALSE, TRUE, TRUE, FALSE
    WHERE NOT EXISTS (SELECT 1 FROM shop WHERE id = 1 AND one_room);
ALTER TABLE shop DROP COLUMN one_room;

-- Racks and trestles: places on which wet faces lie.
ALTER TABLE place
  MODIFY COLUMN kind ENUM('bay','rack','box','bag','shelf','trestles') NOT NULL,
  ADD COLUMN room_id INT UNSIGNED NULL,
  ADD COLUMN area_m2 DECIMAL(6,2) NULL CHECK (area_m2 > 0),
  ADD COLUMN length_mm DECIMAL(9,2) NULL CHECK (length_mm > 0), ADD COLUMN length_text VARCHAR(40) NOT NULL DEFAULT '',
  ADD CONSTRAINT place_room FOREIGN KEY (room_id) REFERENCES room (id) ON DELETE SET NULL;

-- No skill named: all of them. No hours named: those of the shop.
CREATE TABLE person_skill (
  person_id INT UNSIGNED NOT NULL, skill ENUM('strip','repair','colour','spray','polish') NOT NULL,
  PRIMARY KEY (person_id, skill), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE person_opening (
  person_id INT UNSIGNED NOT NULL, weekday TINYINT NOT NULL CHECK (weekday BETWEEN 1 AND 7),
  open_min SMALLINT NOT NULL, close_min SMALLINT NOT NULL,
  PRIMARY KEY (person_id, weekday, open_min), CHECK (close_min > open_min AND close_min <= 1440),
  FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE day_off (
  person_id INT UNSIGNED NOT NULL, from_day DATE NOT NULL, until_day DATE NOT NULL,
  why VARCHAR(120) NOT NULL DEFAULT '',
  PRIMARY KEY (person_id, from_day), CHECK (until_day >= from_day), FOREIGN KEY (person_id) REFERENCES person (id)
);
-- Weekdays on which pieces are fetched and delivered; none named: whenever the shop is open.
CREATE TABLE fetch_day (weekday TINYINT PRIMARY KEY CHECK (weekday BETWEEN 1 AND 7));
