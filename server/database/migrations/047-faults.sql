-- Something went wrong: the sign, what was known and said, the mend that went into the plan, the cause in the end.
CREATE TABLE fault (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, step_id INT UNSIGNED NULL, sign VARCHAR(30) NOT NULL,
  -- of the step at which it showed, kept though the step goes
  kind VARCHAR(30) NULL, product VARCHAR(40) NULL,
  facts TEXT NOT NULL, said TEXT NOT NULL,
  mend VARCHAR(40) NULL, mended_at DATETIME(3) NULL,
  cause VARCHAR(30) NULL, found_at DATETIME(3) NULL, keep_next BOOLEAN NOT NULL DEFAULT FALSE,
  note VARCHAR(300) NOT NULL DEFAULT '',
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, row_version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY (sign, cause), KEY (keep_next, product),
  CONSTRAINT fault_piece FOREIGN KEY (piece_id) REFERENCES piece (id),
  CONSTRAINT fault_step FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE SET NULL,
  CONSTRAINT fault_person FOREIGN KEY (person_id) REFERENCES person (id)
);
-- How often a question is yes under a cause, where the shop knows better.
CREATE TABLE own_grade (
  sign VARCHAR(30) NOT NULL, ask VARCHAR(30) NOT NULL, cause VARCHAR(30) NOT NULL,
  grade ENUM('almost','half','hardly') NOT NULL, PRIMARY KEY (sign, ask, cause)
);
-- What was learnt from a fault and is minded in this piece by now.
CREATE TABLE minded (
  piece_id INT UNSIGNED NOT NULL, fault_id INT UNSIGNED NOT NULL, person_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL, PRIMARY KEY (piece_id, fault_id),
  CONSTRAINT minded_piece FOREIGN KEY (piece_id) REFERENCES piece (id),
  CONSTRAINT minded_fault FOREIGN KEY (fault_id) REFERENCES fault (id) ON DELETE CASCADE,
  CONSTRAINT minded_person FOREIGN KEY (person_id) REFERENCES person (id)
);
