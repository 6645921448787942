-- Tablets of the shop, who stands at them, and what each role may do. What was signed in as a tablet signs in again.
CREATE TABLE tablet (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) NOT NULL, place_id INT UNSIGNED NULL,
  seal UUID NOT NULL UNIQUE,
  made_at DATETIME(3) NOT NULL, made_by INT UNSIGNED NOT NULL, seen_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL, row_version INT UNSIGNED NOT NULL DEFAULT 1,
  FOREIGN KEY (place_id) REFERENCES place (id) ON DELETE SET NULL,
  FOREIGN KEY (made_by) REFERENCES person (id)
);
DELETE FROM session WHERE kind = 'tablet';
ALTER TABLE session DROP COLUMN kind, ADD COLUMN tablet_id INT UNSIGNED NULL, ADD COLUMN proved_at DATETIME(3) NULL,
  ADD FOREIGN KEY (tablet_id) REFERENCES tablet (id);
-- a PIN's hash, and how many wrong ones were given since the last right one
ALTER TABLE person ADD COLUMN pin_hash VARCHAR(255) NULL, ADD COLUMN pin_wrong SMALLINT UNSIGNED NOT NULL DEFAULT 0;
ALTER TABLE shop
  ADD COLUMN tablet_idle_min SMALLINT UNSIGNED NOT NULL DEFAULT 5 CHECK (tablet_idle_min BETWEEN 1 AND 120);
ALTER TABLE work_spell ADD COLUMN tablet_id INT UNSIGNED NULL, ADD FOREIGN KEY (tablet_id) REFERENCES tablet (id);
-- an owner has every right; it needs no row
CREATE TABLE role_right (
  role ENUM('lead','finisher','office') NOT NULL, name VARCHAR(30) NOT NULL, PRIMARY KEY (role, name)
);
INSERT INTO role_right (role, name) VALUES
  ('lead', 'see-prices'), ('lead', 'work'), ('lead', 'examine'), ('lead', 'plan'), ('lead', 'edit-plan'),
  ('lead', 'mix'), ('lead', 'store'), ('lead', 'take-in'), ('lead', 'quote'), ('lead', 'hand-over'),
  ('finisher', 'work'), ('finisher', 'examine'), ('finisher', 'edit-plan'), ('finisher', 'mix'),
  ('office', 'see-prices'), ('office', 'take-in'), ('office', 'quote'), ('office', 'hand-over');
