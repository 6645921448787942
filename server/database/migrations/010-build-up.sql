-- The surface layer by layer: build-ups with their ground and ending, what is laid on them, and what labels say.
CREATE TABLE product_label (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  product_id INT UNSIGNED NOT NULL, figures JSON NOT NULL,
  person_id INT UNSIGNED NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (product_id) REFERENCES product (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
-- the first one of a piece has every face that no other has
CREATE TABLE build_up (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, position SMALLINT UNSIGNED NOT NULL, ground VARCHAR(40) NOT NULL,
  ending VARCHAR(20) NOT NULL,
  UNIQUE (piece_id, position), FOREIGN KEY (piece_id) REFERENCES piece (id)
);
CREATE TABLE build_up_face (
  build_up_id INT UNSIGNED NOT NULL, face_id INT UNSIGNED NOT NULL, PRIMARY KEY (build_up_id, face_id),
  UNIQUE (face_id),
  FOREIGN KEY (build_up_id) REFERENCES build_up (id) ON DELETE CASCADE, FOREIGN KEY (face_id) REFERENCES face (id)
);
-- from the wood upward; no faces: all of its build-up
CREATE TABLE layer (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  build_up_id INT UNSIGNED NOT NULL, position SMALLINT UNSIGNED NOT NULL, act VARCHAR(30) NOT NULL,
  product VARCHAR(40) NULL, product_id INT UNSIGNED NULL, coats TINYINT UNSIGNED NULL,
  film_um SMALLINT UNSIGNED NULL, method VARCHAR(30) NULL, grit VARCHAR(40) NULL, used_as VARCHAR(30) NULL,
  fields JSON NOT NULL DEFAULT '{}',
  KEY by_position (build_up_id, position),
  FOREIGN KEY (build_up_id) REFERENCES build_up (id) ON DELETE CASCADE,
  FOREIGN KEY (product_id) REFERENCES product (id)
);
CREATE TABLE layer_face (
  layer_id INT UNSIGNED NOT NULL, face_id INT UNSIGNED NOT NULL, PRIMARY KEY (layer_id, face_id),
  FOREIGN KEY (layer_id) REFERENCES layer (id) ON DELETE CASCADE, FOREIGN KEY (face_id) REFERENCES face (id)
);
-- the label that a step began with; before its start it follows its product's newest
ALTER TABLE plan_step ADD COLUMN product_id INT UNSIGNED NULL, ADD COLUMN label_id INT UNSIGNED NULL;
INSERT INTO product_label (product_id, figures, at)
  SELECT id, '{}', CURRENT_TIMESTAMP(3) FROM product WHERE NOT EXISTS (SELECT 1 FROM product_label);
