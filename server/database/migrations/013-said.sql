-- Of a wait only what people said is kept; what it comes to follows from steps, labels and the air.
CREATE TABLE wait_said (
  piece_id INT UNSIGNED NOT NULL, from_key VARCHAR(60) NOT NULL, to_key VARCHAR(60) NOT NULL,
  least_min INT UNSIGNED NULL, held_until DATETIME(3) NULL,
  PRIMARY KEY (piece_id, from_key, to_key), FOREIGN KEY (piece_id) REFERENCES piece (id)
);
INSERT INTO wait_said (piece_id, from_key, to_key, least_min, held_until)
  SELECT piece_id, from_key, to_key, least_min, held_until
    FROM plan_wait
    WHERE least_min IS NOT NULL OR held_until IS NOT NULL;
DROP TABLE plan_wait;
