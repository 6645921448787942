-- Who took a piece home, with a signature on glass; whole, or part done; and by whose leave it is reminded of later.
CREATE TABLE hand_over (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  piece_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL, to_name VARCHAR(120) NOT NULL,
  -- a path of SVG in a box of 300 × 100
  signature TEXT NULL, part BOOLEAN NOT NULL DEFAULT FALSE, person_id INT UNSIGNED NOT NULL,
  back_at DATETIME(3) NULL,
  CONSTRAINT hand_over_piece FOREIGN KEY (piece_id) REFERENCES piece (id),
  CONSTRAINT hand_over_person FOREIGN KEY (person_id) REFERENCES person (id)
);
ALTER TABLE piece MODIFY state ENUM('enquiry','active','ready','handed-over','part-done','declined')
  NOT NULL DEFAULT 'active';
ALTER TABLE piece ADD COLUMN told_at DATETIME(3) NULL, ADD COLUMN renew_on DATE NULL,
  ADD COLUMN renew_leave BOOLEAN NOT NULL DEFAULT FALSE, ADD COLUMN renew_told_at DATETIME(3) NULL;
ALTER TABLE mail MODIFY kind ENUM('ask','reply','remind','ready','renew') NOT NULL;
ALTER TABLE letter_words MODIFY kind ENUM('ask','reply','remind','ready','renew') NOT NULL;
