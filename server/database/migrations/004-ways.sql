-- Faces that go their own way, changes of a plan that can be taken back, waits lengthened by hand, when a pot was
-- mixed, on what colour was approved, and whether dust and finish share a room.
ALTER TABLE piece ADD COLUMN film_um SMALLINT UNSIGNED NULL,
  ADD COLUMN colour_sample ENUM('none','bare','under-finish') NOT NULL DEFAULT 'none';
ALTER TABLE plan_step ADD COLUMN mixed_at DATETIME(3) NULL;
ALTER TABLE plan_wait ADD COLUMN least_min DECIMAL(9,2) NULL;
ALTER TABLE shop ADD COLUMN one_room BOOLEAN NOT NULL DEFAULT FALSE;
CREATE TABLE own_way (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL,
  route VARCHAR(40) NOT NULL, finish VARCHAR(40) NOT NULL, colour VARCHAR(30) NOT NULL,
    conditioner VARCHAR(30) NOT NULL, fill VARCHAR(30) NOT NULL, bleach VARCHAR(30) NOT NULL,
    film_um SMALLINT UNSIGNED NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id)
);
CREATE TABLE own_way_face (
  way_id INT UNSIGNED NOT NULL, face_id INT UNSIGNED NOT NULL, PRIMARY KEY (way_id, face_id), UNIQUE (face_id),
  FOREIGN KEY (way_id) REFERENCES own_way (id) ON DELETE CASCADE, FOREIGN KEY (face_id) REFERENCES face (id)
);
CREATE TABLE plan_edit (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, says VARCHAR(500) NOT NULL, steps_before LONGTEXT NOT NULL,
    steps_after LONGTEXT NOT NULL, undone BOOLEAN NOT NULL DEFAULT FALSE,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
