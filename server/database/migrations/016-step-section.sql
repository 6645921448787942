-- Sections of a step whose product sets: when each went on, and when it came off.
CREATE TABLE step_section (
  step_id INT UNSIGNED NOT NULL, no SMALLINT UNSIGNED NOT NULL,
  on_at DATETIME(3) NOT NULL, off_at DATETIME(3) NULL,
  PRIMARY KEY (step_id, no),
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE
);
