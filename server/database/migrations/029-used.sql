-- What a step took from a pot: it books no lot again, and costs its share of the pot by weight.
CREATE TABLE pot_use (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  batch_id INT UNSIGNED NOT NULL, step_id INT UNSIGNED NOT NULL,
  amount_g DECIMAL(10,2) NOT NULL, cost_minor INT NOT NULL, word VARCHAR(300) NOT NULL DEFAULT '',
  at DATETIME(3) NOT NULL,
  KEY (step_id), KEY (batch_id),
  FOREIGN KEY (batch_id) REFERENCES batch (id), FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE
);
-- the product that was planned, where another was used; the step goes on by what lies on the piece
ALTER TABLE plan_step ADD COLUMN planned_product VARCHAR(40) NULL, ADD COLUMN planned_label INT UNSIGNED NULL;
