-- Surfaces that the shop saved by name: layers without the faces of one piece, and the wood and look that they were
-- laid for.
CREATE TABLE known_surface (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(80) NOT NULL, ending VARCHAR(20) NOT NULL, sheen VARCHAR(20) NOT NULL, tone VARCHAR(20) NOT NULL,
  woods JSON NOT NULL, layers JSON NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  UNIQUE (name), FOREIGN KEY (person_id) REFERENCES person (id)
);
