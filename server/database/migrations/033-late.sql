-- Every act at the bench, with the number that it left its step at. What was done without a line comes late: it says
-- in words what it was, keeps what it carried, and waits here where it could not be entered.
CREATE TABLE bench_act (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  uuid UUID NOT NULL UNIQUE,
  piece_id INT UNSIGNED NOT NULL, step_id INT UNSIGNED NOT NULL,
  person_id INT UNSIGNED NOT NULL, tablet_id INT UNSIGNED NULL,
  kind VARCHAR(20) NOT NULL, happened_at DATETIME(3) NOT NULL, came_at DATETIME(3) NOT NULL,
  step_version INT UNSIGNED NOT NULL,
  state ENUM('entered','held','settled','back') NOT NULL DEFAULT 'entered',
  late BOOLEAN NOT NULL DEFAULT FALSE, says VARCHAR(300) NOT NULL DEFAULT '', command JSON NULL,
  -- why it is held, or which rule it broke, and when the owner has seen it
  why VARCHAR(1000) NULL, seen_at DATETIME(3) NULL,
  -- entered by a name alone: its person has said yes, mine, or no
  by_name BOOLEAN NOT NULL DEFAULT FALSE, mine BOOLEAN NULL,
  KEY (step_id, step_version), KEY (late, state),
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE,
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE,
  FOREIGN KEY (person_id) REFERENCES person (id), FOREIGN KEY (tablet_id) REFERENCES tablet (id)
);
