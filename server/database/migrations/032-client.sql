-- A client is one record: changed with its version, and merged into another where two were made for one person.
ALTER TABLE client ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1, ADD COLUMN merged_into INT UNSIGNED NULL,
  ADD FOREIGN KEY (merged_into) REFERENCES client (id);
