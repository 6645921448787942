-- A shop is told from every other, and so is each of its rows, also after a backup or in another shop's hands.
ALTER TABLE shop ADD COLUMN uid UUID NULL;
UPDATE shop SET uid = COALESCE((SELECT MD5(CONCAT(MIN(happened_at), MIN(recorded_at))) FROM logbook), UUID())
  WHERE uid IS NULL;
ALTER TABLE shop MODIFY COLUMN uid UUID NOT NULL DEFAULT UUID();
-- Rows that were read in from another shop, by the uid that they had there.
CREATE TABLE came_from (
  uid UUID PRIMARY KEY, table_name VARCHAR(40) NOT NULL, row_id BIGINT UNSIGNED NOT NULL,
  UNIQUE (table_name, row_id)
);
-- What is known of a client's person goes on the client's word; what was done to the pieces stays. Kept without
-- names, so that it can be repeated where an older backup is brought back.
CREATE TABLE erasure (
  client_uid UUID PRIMARY KEY, at DATETIME(3) NOT NULL, person_id INT UNSIGNED NULL, done_at DATETIME(3) NULL
);
ALTER TABLE client ADD COLUMN erased_at DATETIME(3) NULL;
ALTER TABLE logbook ADD COLUMN erased_at DATETIME(3) NULL;
ALTER TABLE plan_snapshot ADD COLUMN erased_at DATETIME(3) NULL;
ALTER TABLE examination ADD COLUMN erased_at DATETIME(3) NULL;
ALTER TABLE quotation ADD COLUMN erased_at DATETIME(3) NULL;
-- Nothing but names goes from what is kept, and it is marked.
CREATE OR REPLACE TRIGGER logbook_keeps BEFORE UPDATE ON logbook FOR EACH ROW
  IF NEW.erased_at IS NULL OR NOT (
      NEW.id <=> OLD.id AND NEW.piece_id <=> OLD.piece_id AND NEW.step_id <=> OLD.step_id AND
      NEW.kind <=> OLD.kind AND NEW.happened_at <=> OLD.happened_at AND NEW.recorded_at <=> OLD.recorded_at AND
      NEW.person_id <=> OLD.person_id AND NEW.undoes_id <=> OLD.undoes_id
    )
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the logbook is append-only'; END IF;
CREATE OR REPLACE TRIGGER snapshot_keeps BEFORE UPDATE ON plan_snapshot FOR EACH ROW
  IF NEW.erased_at IS NULL OR NOT (
      NEW.id <=> OLD.id AND NEW.piece_id <=> OLD.piece_id AND NEW.reason <=> OLD.reason AND
      NEW.at <=> OLD.at AND NEW.sha256 <=> OLD.sha256
    )
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a snapshot never changes'; END IF;
CREATE OR REPLACE TRIGGER examination_keeps BEFORE UPDATE ON examination FOR EACH ROW
  IF NEW.erased_at IS NULL OR NOT (
      NEW.id <=> OLD.id AND NEW.piece_id <=> OLD.piece_id AND NEW.at <=> OLD.at AND
      NEW.person_id <=> OLD.person_id AND NEW.sha256 <=> OLD.sha256
    )
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'an examination that was kept never changes'; END IF;
