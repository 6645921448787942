-- When each open step is to be done, by whom and where: each solving is a schedule, of which the last few are kept.
CREATE TABLE schedule (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  made_at DATETIME(3) NOT NULL,
  -- the last event that it knows
  upto BIGINT UNSIGNED NOT NULL,
  seed INT UNSIGNED NOT NULL, tried INT UNSIGNED NOT NULL,
  late_h DOUBLE NOT NULL, change_overs INT UNSIGNED NOT NULL, moved INT UNSIGNED NOT NULL,
  missed JSON NOT NULL, unplaced JSON NOT NULL
);
CREATE TABLE schedule_step (
  schedule_id INT UNSIGNED NOT NULL, task VARCHAR(24) NOT NULL,
  step_id INT UNSIGNED NOT NULL, piece_id INT UNSIGNED NOT NULL,
  person_id INT UNSIGNED NULL, room_id INT UNSIGNED NULL, place_id INT UNSIGNED NULL,
  start_at DATETIME(3) NOT NULL, end_at DATETIME(3) NOT NULL, dry_at DATETIME(3) NOT NULL,
  parts JSON NOT NULL, if_yes BOOLEAN NOT NULL, why JSON NOT NULL,
  PRIMARY KEY (schedule_id, task, step_id), KEY (step_id),
  FOREIGN KEY (schedule_id) REFERENCES schedule (id) ON DELETE CASCADE,
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE,
  FOREIGN KEY (room_id) REFERENCES room (id) ON DELETE SET NULL,
  FOREIGN KEY (place_id) REFERENCES place (id) ON DELETE SET NULL
);
-- Put there by hand. It belongs to the step, and outlives every solving.
CREATE TABLE step_pin (
  step_id INT UNSIGNED PRIMARY KEY, start_at DATETIME(3) NOT NULL,
  person_id INT UNSIGNED NULL, room_id INT UNSIGNED NULL, by_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE,
  FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE,
  FOREIGN KEY (room_id) REFERENCES room (id) ON DELETE SET NULL, FOREIGN KEY (by_id) REFERENCES person (id)
);
