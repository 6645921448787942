-- Who gets in, what is repeatable, what is sent, what was saved elsewhere. Times of these tables are real, also in a
-- demo.
ALTER TABLE shop
  ADD COLUMN idle_h SMALLINT UNSIGNED NOT NULL DEFAULT 12 CHECK (idle_h BETWEEN 1 AND 168),
  ADD COLUMN mail_name VARCHAR(120) NOT NULL DEFAULT '', ADD COLUMN mail_address VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN mail_held BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE person DROP COLUMN epoch, ADD COLUMN must_change BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN one_time_until DATETIME(3) NULL;
CREATE TABLE session (
  id UUID PRIMARY KEY,
  person_id INT UNSIGNED NOT NULL, kind ENUM('own','tablet') NOT NULL,
  device VARCHAR(120) NOT NULL, address VARCHAR(45) NOT NULL,
  made_at DATETIME(3) NOT NULL, seen_at DATETIME(3) NOT NULL, ends_at DATETIME(3) NOT NULL,
  KEY (ends_at), FOREIGN KEY (person_id) REFERENCES person (id)
);
-- devices that somebody has signed in from before; the token's hash
CREATE TABLE known_device (
  person_id INT UNSIGNED NOT NULL, token_hash CHAR(64) NOT NULL, at DATETIME(3) NOT NULL,
  PRIMARY KEY (person_id, token_hash), FOREIGN KEY (person_id) REFERENCES person (id)
);
ALTER TABLE sign_in_attempt
  ADD COLUMN address VARCHAR(45) NOT NULL DEFAULT '', ADD COLUMN device CHAR(64) NULL, ADD KEY (address, at),
    ADD KEY (at);
-- links in clients' mails: all of a question live until it is answered, superseded or expired
CREATE TABLE link (
  hash CHAR(64) PRIMARY KEY, approval_id INT UNSIGNED NOT NULL, made_at DATETIME(3) NOT NULL,
  FOREIGN KEY (approval_id) REFERENCES approval (id)
);
INSERT IGNORE INTO link (hash, approval_id, made_at) SELECT token_hash, id,
  asked_at FROM approval WHERE token_hash IS NOT NULL;
ALTER TABLE approval DROP COLUMN token_hash;
ALTER TABLE mail
  MODIFY COLUMN state ENUM('waiting','sending','sent','perhaps','failed') NOT NULL DEFAULT 'waiting',
  ADD COLUMN seed CHAR(32) NOT NULL DEFAULT '', ADD COLUMN queued_at DATETIME(3) NULL,
    ADD COLUMN claimed_at DATETIME(3) NULL, ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1;
UPDATE mail SET seed = LEFT(SHA2(CONCAT(id, UUID(), RAND()), 256), 32), queued_at = UTC_TIMESTAMP(3),
  try_after = UTC_TIMESTAMP(3) WHERE state = 'waiting';
-- every write, by the UUID that its sender made; the answer is kept with what was written
CREATE TABLE command (
  uuid UUID PRIMARY KEY, route VARCHAR(80) NOT NULL, person_id INT UNSIGNED NULL, at DATETIME(3) NOT NULL,
    answer LONGTEXT NULL,
  KEY (at)
);
INSERT IGNORE INTO command (uuid, route, person_id, at, answer) SELECT uuid, 'POST /api/bench', person_id, at,
  result FROM bench_command;
DROP TABLE bench_command;
ALTER TABLE photograph ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1;
ALTER TABLE house_method ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1;
-- what one instance does for all, and when it is due again
CREATE TABLE job (name VARCHAR(40) PRIMARY KEY, due_at DATETIME(3) NOT NULL);
CREATE TABLE backup_taken (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  at DATETIME(3) NOT NULL, file VARCHAR(200) NOT NULL, bytes BIGINT UNSIGNED NOT NULL, second_copy BOOLEAN NOT NULL,
    KEY (at)
);
ALTER TABLE event ADD KEY event_at (at);
