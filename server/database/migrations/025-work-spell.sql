-- Who had a step in hand, from when to when. Steps of before hold one spell, by whoever started them.
CREATE TABLE work_spell (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  step_id INT UNSIGNED NOT NULL, person_id INT UNSIGNED NOT NULL,
  from_at DATETIME(3) NOT NULL, to_at DATETIME(3) NULL,
  CHECK (to_at IS NULL OR to_at >= from_at),
  KEY (step_id), KEY (person_id, to_at),
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE,
  FOREIGN KEY (person_id) REFERENCES person (id)
);
INSERT INTO work_spell (step_id, person_id, from_at, to_at)
  SELECT id, started_by, started_at, IF(state = 'running', NULL, GREATEST(started_at, finished_at))
  FROM plan_step
  WHERE started_by IS NOT NULL AND started_at IS NOT NULL AND (state = 'running' OR finished_at IS NOT NULL)
    AND kind <> 'approval';
