-- A piece that is asked about before it is in, one that nobody wants done after all, and one that follows another.
ALTER TABLE piece MODIFY state ENUM('enquiry','active','ready','handed-over','declined') NOT NULL DEFAULT 'active';
ALTER TABLE piece ADD COLUMN follows_id INT UNSIGNED NULL,
  ADD CONSTRAINT piece_follows FOREIGN KEY (follows_id) REFERENCES piece (id);
