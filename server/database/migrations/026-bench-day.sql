-- Where a piece stands, and looks at what dries: what was tried, after what time, in which air.
ALTER TABLE piece ADD COLUMN place_id INT UNSIGNED NULL,
  ADD CONSTRAINT piece_stands FOREIGN KEY (place_id) REFERENCES place (id);
CREATE TABLE dry_look (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL,
  -- what dries, and what waits for it
  step_id INT UNSIGNED NOT NULL, before_id INT UNSIGNED NULL,
  dry BOOLEAN NOT NULL, tried VARCHAR(20) NULL,
  product VARCHAR(40) NULL, label_id INT UNSIGNED NULL, wet_um DECIMAL(7,2) NULL,
  elapsed_min DECIMAL(9,2) NOT NULL,
  temperature_C DECIMAL(4,1) NULL, rh DECIMAL(4,3) NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  KEY (product, at),
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id),
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE,
  FOREIGN KEY (before_id) REFERENCES plan_step (id) ON DELETE SET NULL
);
