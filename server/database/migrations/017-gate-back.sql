-- What a failed gate changed in its plan, so that it can be taken back until a step of what followed starts.
CREATE TABLE gate_back (
  step_id INT UNSIGNED NOT NULL PRIMARY KEY, content JSON NOT NULL,
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE
);
