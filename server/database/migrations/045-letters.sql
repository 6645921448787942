-- The house's own words for each kind of letter, and at the foot of what clients see; a letter may come back.
CREATE TABLE letter_words (
  kind ENUM('ask','reply','remind') PRIMARY KEY, subject VARCHAR(120) NOT NULL, words VARCHAR(1000) NOT NULL
);
ALTER TABLE shop ADD COLUMN page_words VARCHAR(1000) NOT NULL DEFAULT '';
ALTER TABLE mail MODIFY state ENUM('waiting','sending','sent','perhaps','failed','back') NOT NULL DEFAULT 'waiting';
-- A client is asked before work passes the worst that was agreed; a question whose time has passed is closed once.
ALTER TABLE question_item
  MODIFY kind ENUM('surface','found','work','hardware','colour','date','cost') NOT NULL;
ALTER TABLE approval ADD COLUMN closed_at DATETIME(3) NULL;
UPDATE approval SET closed_at = expires_at WHERE state = 'open' AND expires_at < UTC_TIMESTAMP(3);
