-- Examination: places of findings, layers and groups of finishes, the walk, wood, hazards, parts, patches, pairs of
-- photographs, reports.
ALTER TABLE piece ADD COLUMN room_dry_rh DECIMAL(4,3) NULL CHECK (room_dry_rh > 0 AND room_dry_rh < 1),
  ADD COLUMN room_humid_rh DECIMAL(4,3) NULL CHECK (room_humid_rh > 0 AND room_humid_rh < 1);
ALTER TABLE face ADD COLUMN finish_group CHAR(1) NOT NULL DEFAULT 'A',
  ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE finding
  ADD COLUMN shape ENUM('unplaced','point','line','area','face') NOT NULL DEFAULT 'unplaced',
  ADD COLUMN copy_no SMALLINT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN x_mm DECIMAL(9,2) NOT NULL DEFAULT 0, ADD COLUMN y_mm DECIMAL(9,2) NOT NULL DEFAULT 0,
  ADD COLUMN x2_mm DECIMAL(9,2) NOT NULL DEFAULT 0, ADD COLUMN y2_mm DECIMAL(9,2) NOT NULL DEFAULT 0,
  ADD COLUMN size_mm DECIMAL(8,2) NOT NULL DEFAULT 0 CHECK (size_mm >= 0),
  ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE finish_test ADD COLUMN finish_group CHAR(1) NOT NULL DEFAULT 'A',
  ADD COLUMN layer TINYINT UNSIGNED NOT NULL DEFAULT 1 CHECK (layer BETWEEN 1 AND 5);
ALTER TABLE evidence MODIFY kind VARCHAR(40) NOT NULL;
UPDATE evidence SET kind = 'lead' WHERE kind = 'lead-test';
ALTER TABLE overrule ADD COLUMN about ENUM('plan','examination') NOT NULL DEFAULT 'plan',
  ADD COLUMN value VARCHAR(40) NULL;
CREATE TABLE walk_answer (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, question VARCHAR(140) NOT NULL, options VARCHAR(300) NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  KEY (piece_id, question, id), FOREIGN KEY (piece_id) REFERENCES piece (id),
    FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE moisture_reading (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  face_id INT UNSIGNED NOT NULL, reading_pct DECIMAL(4,1) NOT NULL CHECK (reading_pct BETWEEN 1 AND 100),
    thickness_mm DECIMAL(6,2) NOT NULL CHECK (thickness_mm > 0),
  air_temperature_C DECIMAL(4,1) NULL, air_rh DECIMAL(4,3) NULL, person_id INT UNSIGNED NOT NULL,
    at DATETIME(3) NOT NULL,
  FOREIGN KEY (face_id) REFERENCES face (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE patch (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  face_id INT UNSIGNED NOT NULL, method VARCHAR(20) NOT NULL, length_mm DECIMAL(8,2) NOT NULL CHECK (length_mm > 0),
    width_mm DECIMAL(8,2) NOT NULL CHECK (width_mm > 0),
  minutes DECIMAL(6,1) NOT NULL CHECK (minutes > 0), result VARCHAR(20) NOT NULL,
    note VARCHAR(500) NOT NULL DEFAULT '', person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (face_id) REFERENCES face (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE place (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  code VARCHAR(20) NOT NULL UNIQUE, kind ENUM('bay','rack','box','bag','shelf') NOT NULL
);
CREATE TABLE item (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, mark VARCHAR(12) NOT NULL, name VARCHAR(120) NOT NULL,
    kind ENUM('part','hardware','mark') NOT NULL,
  count SMALLINT UNSIGNED NOT NULL CHECK (count > 0), taken_out SMALLINT UNSIGNED NULL, put_back SMALLINT UNSIGNED NULL,
  state ENUM('present','missing','mismatched','replace') NOT NULL DEFAULT 'present',
    set_name VARCHAR(60) NOT NULL DEFAULT '', place_id INT UNSIGNED NULL,
  holes JSON NULL, note VARCHAR(500) NOT NULL DEFAULT '', answer ENUM('replace','match','leave') NULL,
    row_version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE (piece_id, mark), FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (place_id) REFERENCES place (id),
  CHECK (taken_out <= count), CHECK (put_back <= taken_out)
);
ALTER TABLE photograph ADD COLUMN caption VARCHAR(200) NOT NULL DEFAULT '', ADD COLUMN before_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (before_id) REFERENCES photograph (id);
CREATE TABLE finding_photograph (
  finding_id INT UNSIGNED NOT NULL, photograph_id INT UNSIGNED NOT NULL, PRIMARY KEY (finding_id, photograph_id),
  FOREIGN KEY (finding_id) REFERENCES finding (id), FOREIGN KEY (photograph_id) REFERENCES photograph (id)
);
ALTER TABLE approval ADD COLUMN item_id INT UNSIGNED NULL, ADD COLUMN choice ENUM('replace','match','leave') NULL,
  ADD FOREIGN KEY (item_id) REFERENCES item (id);
CREATE TABLE examination (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, name VARCHAR(120) NOT NULL, at DATETIME(3) NOT NULL,
    person_id INT UNSIGNED NOT NULL, origin ENUM('here','read-in') NOT NULL,
  content LONGTEXT NOT NULL, sha256 CHAR(64) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TRIGGER examination_keeps BEFORE UPDATE ON examination FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'an examination that was kept never changes';
