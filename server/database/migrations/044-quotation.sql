-- A quotation as it was given: its paper in parts, never changed; a newer one is another version.
CREATE TABLE quotation (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, version SMALLINT UNSIGNED NOT NULL, made_at DATETIME(3) NOT NULL,
  person_id INT UNSIGNED NOT NULL, valid_until DATE NOT NULL, total_minor INT UNSIGNED NOT NULL,
  worst_minor INT UNSIGNED NOT NULL, content LONGTEXT NOT NULL, sha256 CHAR(64) NOT NULL,
  UNIQUE (piece_id, version),
  FOREIGN KEY (piece_id) REFERENCES piece (id), FOREIGN KEY (person_id) REFERENCES person (id)
);
ALTER TABLE shop ADD COLUMN quote_days SMALLINT UNSIGNED NOT NULL DEFAULT 30,
  ADD COLUMN deposit_bp SMALLINT UNSIGNED NOT NULL DEFAULT 0, ADD COLUMN quote_words VARCHAR(1000) NOT NULL DEFAULT '';
