-- Colour: readings, colourants with their spectra, recipes, pots with what was poured and tried, bands of the step
-- panel. Spectra are 31 factors, 400 to 700 nm.
-- A reading of CIELAB alone keeps it as it came (L, a, b, light, observer) in `given`; its spectrum is then a
-- plausible one.
CREATE TABLE reading (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NULL, name VARCHAR(120) NOT NULL, role ENUM('wood','target','band','other') NOT NULL,
  spectrum JSON NOT NULL, given JSON NULL,
  clear_coat VARCHAR(40) NULL, gloss ENUM('included','excluded') NOT NULL,
    species VARCHAR(40) NOT NULL DEFAULT 'unknown', zone ENUM('heartwood','sapwood') NOT NULL DEFAULT 'heartwood',
  light_history ENUM('fresh','in-light','shaded') NOT NULL DEFAULT 'fresh',
    source ENUM('meter','file','typed') NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, withdrawn_at DATETIME(3) NULL,
  KEY (role, species), FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE colourant (
  product_id INT UNSIGNED PRIMARY KEY, lies ENUM('wood','film') NOT NULL,
    most_pct DECIMAL(5,2) NOT NULL CHECK (most_pct > 0 AND most_pct <= 100), spectrum JSON NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1, FOREIGN KEY (product_id) REFERENCES product (id)
);
CREATE TABLE colourant_on_wood (
  product_id INT UNSIGNED NOT NULL, species VARCHAR(40) NOT NULL, spectrum JSON NOT NULL,
    bands SMALLINT UNSIGNED NOT NULL, error_before DECIMAL(6,3) NOT NULL, error_after DECIMAL(6,3) NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  PRIMARY KEY (product_id, species), FOREIGN KEY (product_id) REFERENCES colourant (product_id),
    FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE recipe (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL, piece_id INT UNSIGNED NULL, class VARCHAR(40) NOT NULL,
    coats TINYINT UNSIGNED NOT NULL, wipe ENUM(
      'none', 'light', 'normal', 'hard'
    ) NOT NULL, clear_coat VARCHAR(40) NULL,
  wood_id INT UNSIGNED NOT NULL, sapwood_id INT UNSIGNED NULL, target_id INT UNSIGNED NOT NULL,
    lights VARCHAR(60) NOT NULL, observer ENUM('2','10') NOT NULL, bleached BOOLEAN NOT NULL DEFAULT FALSE,
  score DECIMAL(6,3) NOT NULL, worst DECIMAL(6,3) NOT NULL, under JSON NOT NULL, aim JSON NOT NULL,
    predicted JSON NOT NULL, from_id INT UNSIGNED NULL, note VARCHAR(500) NOT NULL DEFAULT '',
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (wood_id) REFERENCES reading (id),
    FOREIGN KEY (sapwood_id) REFERENCES reading (id), FOREIGN KEY (target_id) REFERENCES reading (id),
    FOREIGN KEY (from_id) REFERENCES recipe (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE recipe_share (
  recipe_id INT UNSIGNED NOT NULL, product_id INT UNSIGNED NOT NULL,
    pct DECIMAL(8,4) NOT NULL CHECK (pct > 0 AND pct <= 100),
  PRIMARY KEY (recipe_id, product_id), FOREIGN KEY (recipe_id) REFERENCES recipe (id),
    FOREIGN KEY (product_id) REFERENCES colourant (product_id)
);
CREATE TABLE batch (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL, recipe_id INT UNSIGNED NULL, piece_id INT UNSIGNED NULL,
    smallest_g DECIMAL(7,3) NOT NULL CHECK (smallest_g > 0), pot_min SMALLINT UNSIGNED NULL,
  mixed_at DATETIME(3) NULL, left_g DECIMAL(10,2) NULL CHECK (left_g >= 0), place VARCHAR(60) NOT NULL DEFAULT '',
    closed_at DATETIME(3) NULL, note VARCHAR(500) NOT NULL DEFAULT '',
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, row_version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY (closed_at), FOREIGN KEY (recipe_id) REFERENCES recipe (id), FOREIGN KEY (piece_id) REFERENCES piece (id),
    FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE batch_line (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  batch_id INT UNSIGNED NOT NULL, turn TINYINT UNSIGNED NOT NULL DEFAULT 0, position TINYINT UNSIGNED NOT NULL,
    name VARCHAR(120) NOT NULL, class VARCHAR(40) NULL, product_id INT UNSIGNED NULL, lot_id INT UNSIGNED NULL,
  density DECIMAL(6,3) NOT NULL CHECK (density > 0), wanted_g DECIMAL(10,3) NOT NULL CHECK (wanted_g >= 0),
    poured_g DECIMAL(10,3) NULL CHECK (poured_g >= 0),
  UNIQUE (batch_id, turn, position), FOREIGN KEY (batch_id) REFERENCES batch (id),
    FOREIGN KEY (product_id) REFERENCES product (id), FOREIGN KEY (lot_id) REFERENCES lot (id)
);
CREATE TABLE batch_correction (
  batch_id INT UNSIGNED NOT NULL, turn TINYINT UNSIGNED NOT NULL, left_g DECIMAL(10,2) NOT NULL,
    foretold DECIMAL(6,3) NOT NULL,
  PRIMARY KEY (batch_id, turn), FOREIGN KEY (batch_id) REFERENCES batch (id)
);
CREATE TABLE batch_try (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  batch_id INT UNSIGNED NOT NULL, turn TINYINT UNSIGNED NOT NULL, reading_id INT UNSIGNED NOT NULL,
    foretold DECIMAL(6,3) NULL, reached DECIMAL(6,3) NOT NULL, person_id INT UNSIGNED NOT NULL,
    at DATETIME(3) NOT NULL,
  UNIQUE (batch_id, turn), FOREIGN KEY (batch_id) REFERENCES batch (id),
    FOREIGN KEY (reading_id) REFERENCES reading (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
ALTER TABLE lot_use MODIFY COLUMN step_id INT UNSIGNED NULL, ADD COLUMN batch_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (batch_id) REFERENCES batch (id), ADD CHECK (step_id IS NOT NULL OR batch_id IS NOT NULL);
CREATE TABLE band (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, step_key VARCHAR(60) NOT NULL, title VARCHAR(200) NOT NULL,
    recipe_id INT UNSIGNED NULL, shares JSON NULL, batch_id INT UNSIGNED NULL, reading_id INT UNSIGNED NULL,
    photograph_id INT UNSIGNED NULL,
  species VARCHAR(40) NOT NULL, coats TINYINT UNSIGNED NOT NULL, clear_coat VARCHAR(40) NULL,
    light_history ENUM('fresh','in-light','shaded') NOT NULL DEFAULT 'fresh',
  grit SMALLINT UNSIGNED NULL, scale ENUM('P','CAMI') NOT NULL DEFAULT 'P',
    conditioner VARCHAR(40) NOT NULL DEFAULT 'none', applicator ENUM('cloth','brush','foam','gun','other') NOT NULL,
    dwell_min DECIMAL(6,2) NULL, wipe ENUM(
      'none', 'light', 'normal', 'hard'
    ) NOT NULL, temperature_C DECIMAL(4,1) NULL,
  note VARCHAR(300) NOT NULL DEFAULT '', approved_at DATETIME(3) NULL, approved_by VARCHAR(120) NULL,
    judged_light VARCHAR(10) NULL, withdrawn_at DATETIME(3) NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, row_version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY (piece_id), FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (recipe_id) REFERENCES recipe (id),
    FOREIGN KEY (batch_id) REFERENCES batch (id), FOREIGN KEY (reading_id) REFERENCES reading (id),
    FOREIGN KEY (photograph_id) REFERENCES photograph (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
-- the lights that a colour is judged under besides daylight: in the client's room, and here
ALTER TABLE piece ADD COLUMN room_light VARCHAR(10) NULL;
ALTER TABLE shop ADD COLUMN light VARCHAR(10) NOT NULL DEFAULT 'led';
ALTER TABLE approval ADD COLUMN band_id INT UNSIGNED NULL, ADD FOREIGN KEY (band_id) REFERENCES band (id);
