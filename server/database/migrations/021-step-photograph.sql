-- A photograph taken at the end of a step, as of a gate that failed.
ALTER TABLE photograph
  ADD step_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE SET NULL;
