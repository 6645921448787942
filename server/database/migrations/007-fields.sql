-- What a step is stands in fields; its title follows from them unless it was typed. Set once from today's titles (see
-- conversions.ts), so null until then.
ALTER TABLE plan_step
  ADD COLUMN fields JSON NULL,
  ADD COLUMN typed VARCHAR(60) NOT NULL DEFAULT '';
CREATE TABLE licence (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  person_id INT UNSIGNED NOT NULL, kind VARCHAR(40) NOT NULL, number VARCHAR(80) NOT NULL, valid_until DATE NOT NULL,
  withdrawn_at DATETIME(3) NULL, row_version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY (valid_until), FOREIGN KEY (person_id) REFERENCES person (id)
);
