-- The spine: shop, people, pieces, plans, words, store, record. Times are UTC DATETIME(3); money is in minor units.
CREATE TABLE shop (
  id TINYINT PRIMARY KEY CHECK (id = 1),
  name VARCHAR(120) NOT NULL,
  zone VARCHAR(60) NOT NULL,
  currency CHAR(3) NOT NULL,
  length_unit ENUM('mm','in') NOT NULL DEFAULT 'mm',
  hour_minor INT UNSIGNED NOT NULL,
  material_markup_bp INT UNSIGNED NOT NULL,
  tax_bp INT UNSIGNED NOT NULL,
  clock_offset_ms BIGINT NOT NULL DEFAULT 0,
  row_version INT UNSIGNED NOT NULL DEFAULT 1
);
CREATE TABLE opening (
  weekday TINYINT NOT NULL CHECK (weekday BETWEEN 1 AND 7),
  open_min SMALLINT NOT NULL, close_min SMALLINT NOT NULL,
  PRIMARY KEY (weekday, open_min), CHECK (close_min > open_min AND close_min <= 1439)
);
CREATE TABLE closure (day DATE PRIMARY KEY, why VARCHAR(120) NOT NULL DEFAULT '');

CREATE TABLE person (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  login VARCHAR(80) NOT NULL UNIQUE,
  role ENUM('owner','lead','finisher','office') NOT NULL,
  password_hash VARCHAR(255) NOT NULL,
  epoch INT UNSIGNED NOT NULL DEFAULT 1,
  active BOOLEAN NOT NULL DEFAULT TRUE,
  row_version INT UNSIGNED NOT NULL DEFAULT 1
);
CREATE TABLE sign_in_attempt (
  id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  login VARCHAR(80) NOT NULL, at DATETIME(3) NOT NULL, ok BOOLEAN NOT NULL,
  KEY (login, at)
);

CREATE TABLE client (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL, email VARCHAR(200) NOT NULL DEFAULT '', phone VARCHAR(40) NOT NULL DEFAULT ''
);
CREATE TABLE piece (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  client_id INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  use_kind ENUM('display','daily','hard') NOT NULL,
  tone ENUM('lighter','same','darker','match') NOT NULL,
  sheen ENUM('matt','satin','semi-gloss','gloss') NOT NULL,
  age_wish ENUM('keep','new') NOT NULL,
  due_on DATE NULL,
  period VARCHAR(20) NOT NULL,
  refinished ENUM('yes','no','unknown') NOT NULL,
  keep_patina BOOLEAN NOT NULL,
  lead_answer ENUM('yes','no','unknown') NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  state ENUM('active','ready','handed-over') NOT NULL DEFAULT 'active',
  route VARCHAR(40) NULL, finish VARCHAR(40) NULL, colour VARCHAR(40) NULL, conditioner VARCHAR(40) NULL,
  accepted_worst_minor INT UNSIGNED NULL,
  agreed_minor INT UNSIGNED NULL,
  taken_in_at DATETIME(3) NOT NULL,
  handed_over_at DATETIME(3) NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  FOREIGN KEY (client_id) REFERENCES client (id),
  KEY (state, id)
);
CREATE TABLE part (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  scope ENUM('refinish','protect','match') NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id)
);
CREATE TABLE face (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  part_id INT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  face_rank ENUM('show','secondary','hidden') NOT NULL,
  shape ENUM('flat','profiled','turned','carved') NOT NULL,
  orientation ENUM('horizontal','vertical') NOT NULL,
  length_mm DECIMAL(9,3) NOT NULL CHECK (length_mm > 0), length_typed VARCHAR(40) NOT NULL,
  width_mm DECIMAL(9,3) NOT NULL CHECK (width_mm > 0), width_typed VARCHAR(40) NOT NULL,
  copies SMALLINT UNSIGNED NOT NULL CHECK (copies > 0),
  species VARCHAR(40) NOT NULL,
  substrate ENUM('solid','veneer') NOT NULL,
  veneer_mm DECIMAL(5,3) NULL CHECK (veneer_mm > 0), veneer_typed VARCHAR(40) NULL,
  FOREIGN KEY (part_id) REFERENCES part (id)
);
CREATE TABLE photograph (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL,
  taken_at DATETIME(3) NULL, added_at DATETIME(3) NOT NULL,
  width SMALLINT UNSIGNED NOT NULL, height SMALLINT UNSIGNED NOT NULL,
  address CHAR(64) NOT NULL UNIQUE,
  picture MEDIUMBLOB NOT NULL, thumb MEDIUMBLOB NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id)
);
CREATE TABLE finding (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  face_id INT UNSIGNED NOT NULL,
  kind VARCHAR(40) NOT NULL, grade TINYINT NOT NULL CHECK (grade BETWEEN 1 AND 5),
  wish ENUM('mend','keep','tolerate') NOT NULL, note VARCHAR(500) NOT NULL DEFAULT '',
  withdrawn_at DATETIME(3) NULL,
  FOREIGN KEY (face_id) REFERENCES face (id)
);
CREATE TABLE finish_test (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, test VARCHAR(40) NOT NULL, result VARCHAR(40) NOT NULL,
    spot VARCHAR(120) NOT NULL DEFAULT '',
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, withdrawn_at DATETIME(3) NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE evidence (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, kind ENUM('lead-test') NOT NULL, answer ENUM('yes','no') NOT NULL,
    method VARCHAR(200) NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);

CREATE TABLE plan_step (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL,
  step_key VARCHAR(60) NOT NULL, position INT NOT NULL,
  kind VARCHAR(20) NOT NULL, title VARCHAR(200) NOT NULL, product VARCHAR(40) NULL,
  grits VARCHAR(80) NOT NULL DEFAULT '', method VARCHAR(20) NOT NULL, coat TINYINT UNSIGNED NULL,
    passes TINYINT UNSIGNED NOT NULL,
  attended_min SMALLINT UNSIGNED NOT NULL, amount_ml DECIMAL(9,2) NULL CHECK (amount_ml >= 0),
  cautions VARCHAR(120) NOT NULL DEFAULT '', why VARCHAR(300) NOT NULL,
  gate_slug VARCHAR(40) NULL, gate_look VARCHAR(300) NULL, gate_fails VARCHAR(300) NULL,
    gate_fallback VARCHAR(40) NULL, gate_chance DECIMAL(4,3) NULL,
  by_hand BOOLEAN NOT NULL DEFAULT FALSE,
  state ENUM('planned','running','done','skipped') NOT NULL DEFAULT 'planned',
  gate_result ENUM('pass','fail') NULL,
  started_at DATETIME(3) NULL, finished_at DATETIME(3) NULL, started_by INT UNSIGNED NULL,
    finished_by INT UNSIGNED NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE (piece_id, step_key),
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (started_by) REFERENCES person (id),
    FOREIGN KEY (finished_by) REFERENCES person (id)
);
CREATE TABLE plan_step_face (
  step_id INT UNSIGNED NOT NULL, face_id INT UNSIGNED NOT NULL, PRIMARY KEY (step_id, face_id),
  FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE, FOREIGN KEY (face_id) REFERENCES face (id)
);
CREATE TABLE plan_wait (
  piece_id INT UNSIGNED NOT NULL, from_key VARCHAR(60) NOT NULL, to_key VARCHAR(60) NOT NULL,
  kind VARCHAR(20) NOT NULL, min_min DECIMAL(9,2) NOT NULL, likely_min DECIMAL(9,2) NOT NULL,
    safe_min DECIMAL(9,2) NOT NULL, max_min DECIMAL(9,2) NULL,
  hard BOOLEAN NOT NULL, why VARCHAR(300) NOT NULL, held_until DATETIME(3) NULL,
  PRIMARY KEY (piece_id, from_key, to_key), FOREIGN KEY (piece_id) REFERENCES piece (id)
);
CREATE TABLE plan_snapshot (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, reason ENUM('asked','work-started') NOT NULL, at DATETIME(3) NOT NULL,
  content LONGTEXT NOT NULL, picture MEDIUMTEXT NOT NULL, sha256 CHAR(64) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id)
);
CREATE TABLE overrule (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, rule VARCHAR(60) NOT NULL, step_key VARCHAR(60) NOT NULL, word VARCHAR(500) NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  UNIQUE (piece_id, rule, step_key),
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);

CREATE TABLE approval (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, snapshot_id INT UNSIGNED NOT NULL, step_key VARCHAR(60) NOT NULL,
  state ENUM('open','yes','no','superseded') NOT NULL DEFAULT 'open',
  likely_minor INT UNSIGNED NOT NULL, worst_minor INT UNSIGNED NOT NULL,
  asked_by INT UNSIGNED NOT NULL, asked_at DATETIME(3) NOT NULL, expires_at DATETIME(3) NOT NULL,
  token_hash CHAR(64) NULL UNIQUE,
  answered_at DATETIME(3) NULL, answered_via ENUM('link','phone','counter') NULL, answered_name VARCHAR(120) NULL,
    answer_word VARCHAR(1000) NOT NULL DEFAULT '', recorded_by INT UNSIGNED NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (snapshot_id) REFERENCES plan_snapshot (id),
    FOREIGN KEY (asked_by) REFERENCES person (id)
);
CREATE TABLE approval_word (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  approval_id INT UNSIGNED NOT NULL, side ENUM('client','shop') NOT NULL, says VARCHAR(1000) NOT NULL,
    at DATETIME(3) NOT NULL, person_id INT UNSIGNED NULL,
  FOREIGN KEY (approval_id) REFERENCES approval (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TABLE mail (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  kind ENUM('ask','reply') NOT NULL, recipient VARCHAR(200) NOT NULL, piece_id INT UNSIGNED NOT NULL,
    approval_id INT UNSIGNED NULL, says VARCHAR(1000) NOT NULL DEFAULT '',
  state ENUM('waiting','sent') NOT NULL DEFAULT 'waiting', tries SMALLINT UNSIGNED NOT NULL DEFAULT 0,
    try_after DATETIME(3) NOT NULL, sent_at DATETIME(3) NULL, last_error VARCHAR(300) NOT NULL DEFAULT '',
  KEY (state, try_after), FOREIGN KEY (piece_id) REFERENCES piece (id),
    FOREIGN KEY (approval_id) REFERENCES approval (id)
);

CREATE TABLE product (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL UNIQUE, class VARCHAR(40) NOT NULL, price_minor INT UNSIGNED NOT NULL,
    row_version INT UNSIGNED NOT NULL DEFAULT 1
);
CREATE TABLE lot (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  product_id INT UNSIGNED NOT NULL, code VARCHAR(60) NOT NULL, left_ml DECIMAL(10,2) NOT NULL CHECK (left_ml >= 0),
    received_on DATE NOT NULL,
  UNIQUE (product_id, code), FOREIGN KEY (product_id) REFERENCES product (id)
);
CREATE TABLE lot_use (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  lot_id INT UNSIGNED NOT NULL, step_id INT UNSIGNED NOT NULL, amount_ml DECIMAL(10,2) NOT NULL,
    booked_ml DECIMAL(10,2) NOT NULL, price_minor INT UNSIGNED NOT NULL, word VARCHAR(300) NOT NULL DEFAULT '',
    at DATETIME(3) NOT NULL,
  FOREIGN KEY (lot_id) REFERENCES lot (id), FOREIGN KEY (step_id) REFERENCES plan_step (id)
);

CREATE TABLE logbook (
  id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NULL, step_id INT UNSIGNED NULL, kind VARCHAR(40) NOT NULL, says VARCHAR(1000) NOT NULL,
  happened_at DATETIME(3) NOT NULL, recorded_at DATETIME(3) NOT NULL, person_id INT UNSIGNED NULL,
    undoes_id BIGINT UNSIGNED NULL,
  KEY (piece_id, id), KEY (recorded_at), FOREIGN KEY (piece_id) REFERENCES piece (id),
    FOREIGN KEY (person_id) REFERENCES person (id)
);
CREATE TRIGGER logbook_keeps BEFORE UPDATE ON logbook FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the logbook is append-only';
CREATE TRIGGER logbook_stays BEFORE DELETE ON logbook FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the logbook is append-only';
CREATE TRIGGER snapshot_keeps BEFORE UPDATE ON plan_snapshot FOR EACH ROW
  SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a snapshot never changes';

CREATE TABLE bench_command (
  uuid UUID PRIMARY KEY, person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, result LONGTEXT NOT NULL
);
CREATE TABLE event_counter (id TINYINT PRIMARY KEY CHECK (id = 1), last BIGINT UNSIGNED NOT NULL);
INSERT INTO event_counter VALUES (1, 0);
CREATE TABLE event (
  id BIGINT UNSIGNED PRIMARY KEY, topic VARCHAR(20) NOT NULL, piece_id INT UNSIGNED NULL, at DATETIME(3) NOT NULL
);
CREATE TABLE climate_reading (
  id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  at DATETIME(3) NOT NULL, temperature_C DECIMAL(4,1) NOT NULL, rh DECIMAL(4,3) NOT NULL CHECK (rh > 0 AND rh <= 1),
    source VARCHAR(40) NOT NULL, person_id INT UNSIGNED NULL,
  KEY (at)
);
CREATE TABLE alarm_ack (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, from_key VARCHAR(60) NOT NULL, to_key VARCHAR(60) NOT NULL,
    person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
