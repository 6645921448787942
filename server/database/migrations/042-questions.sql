-- A question to a client has items, each with a standing of its own; what an option does is kept with what was shown.
CREATE TABLE question_item (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  approval_id INT UNSIGNED NOT NULL, no TINYINT UNSIGNED NOT NULL,
  kind ENUM('surface','found','work','hardware','colour','date') NOT NULL,
  -- hardware, or a band
  item_id INT UNSIGNED NULL, band_id INT UNSIGNED NULL,
  state ENUM('open','yes','no','talk','overtaken') NOT NULL DEFAULT 'open', option_no TINYINT UNSIGNED NULL,
  UNIQUE (approval_id, no), KEY (item_id, state), KEY (band_id, state),
  FOREIGN KEY (approval_id) REFERENCES approval (id), FOREIGN KEY (item_id) REFERENCES item (id),
    FOREIGN KEY (band_id) REFERENCES band (id)
);
INSERT IGNORE INTO question_item (approval_id, no, kind, item_id, band_id, state, option_no)
  SELECT id, 1, IF(item_id IS NOT NULL, 'hardware', IF(band_id IS NOT NULL, 'colour', 'surface')), item_id, band_id,
    IF(state = 'superseded', 'overtaken', state),
    IF(state = 'yes', IF(choice IS NULL, 0, FIELD(choice, 'replace', 'match', 'leave') - 1), NULL)
    FROM approval;
ALTER TABLE approval MODIFY state ENUM('open','yes','no','talk','superseded') NOT NULL DEFAULT 'open',
  ADD COLUMN reminded TINYINT UNSIGNED NOT NULL DEFAULT 0, ADD COLUMN reminded_at DATETIME(3) NULL;
-- Work beside the plan that a client agreed to, at its price with tax.
CREATE TABLE extra (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, question_item_id INT UNSIGNED NULL, says VARCHAR(200) NOT NULL,
  price_minor INT UNSIGNED NOT NULL, days SMALLINT UNSIGNED NOT NULL DEFAULT 0, at DATETIME(3) NOT NULL,
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (question_item_id) REFERENCES question_item (id)
);
-- A link opens one question, or NULL: all that is open about its piece.
ALTER TABLE link MODIFY approval_id INT UNSIGNED NULL;
ALTER TABLE link ADD COLUMN piece_id INT UNSIGNED NULL, ADD COLUMN expires_at DATETIME(3) NULL,
  ADD COLUMN revoked_at DATETIME(3) NULL,
  ADD CONSTRAINT link_piece FOREIGN KEY (piece_id) REFERENCES piece (id);
UPDATE link SET piece_id = (SELECT piece_id FROM approval WHERE approval.id = link.approval_id);
ALTER TABLE mail MODIFY kind ENUM('ask','reply','remind') NOT NULL;
-- A client is reminded after so many days, at most so often; 0: never.
ALTER TABLE shop ADD COLUMN remind_days TINYINT UNSIGNED NOT NULL DEFAULT 4,
  ADD COLUMN remind_most TINYINT UNSIGNED NOT NULL DEFAULT 2;
-- Photographs that a client may see on the piece's page.
ALTER TABLE photograph ADD COLUMN released BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE approval DROP FOREIGN KEY IF EXISTS approval_ibfk_4, DROP FOREIGN KEY IF EXISTS approval_ibfk_5,
  DROP COLUMN item_id, DROP COLUMN band_id, DROP COLUMN choice;
