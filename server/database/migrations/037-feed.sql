-- Calendars to be read elsewhere: whoever knows the address reads, until it is taken back.
CREATE TABLE feed (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  hash CHAR(64) NOT NULL UNIQUE,
  kind ENUM('person','room','promised') NOT NULL,
  person_id INT UNSIGNED NULL, room_id INT UNSIGNED NULL,
  by_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, read_at DATETIME(3) NULL,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE,
  FOREIGN KEY (room_id) REFERENCES room (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id)
);
