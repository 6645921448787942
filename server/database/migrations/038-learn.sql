-- What a look is measured against, and starts, which say that it was dry enough by then.
ALTER TABLE dry_look ADD COLUMN expected_min DECIMAL(10,2) NULL CHECK (expected_min > 0),
  ADD COLUMN started BOOLEAN NOT NULL DEFAULT FALSE;
-- Looks from before this count no more: for a product of the store, or for the whole class.
CREATE TABLE drying_reset (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  class VARCHAR(40) NOT NULL, product_id INT UNSIGNED NULL, at DATETIME(3) NOT NULL, by_id INT UNSIGNED NOT NULL,
  FOREIGN KEY (product_id) REFERENCES product (id) ON DELETE CASCADE, FOREIGN KEY (by_id) REFERENCES person (id)
);
