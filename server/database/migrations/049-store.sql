-- Units and consumables, containers and their ages; cans that are counted, spilt, moved, thrown away, kept for a piece.
ALTER TABLE product ADD COLUMN unit ENUM('ml','g','piece','m') NOT NULL DEFAULT 'ml',
  ADD COLUMN grit VARCHAR(12) NOT NULL DEFAULT '', ADD COLUMN supplier VARCHAR(120) NOT NULL DEFAULT '',
  -- sizes in which it is bought, in its unit: "250, 1000"
  ADD COLUMN containers VARCHAR(80) NOT NULL DEFAULT '',
  -- no less than this is kept in the house, in its unit
  ADD COLUMN least DECIMAL(10,2) NOT NULL DEFAULT 0;
ALTER TABLE lot CHANGE COLUMN IF EXISTS left_ml left_amount DECIMAL(10,2) NOT NULL CHECK (left_amount >= 0);
ALTER TABLE lot ADD COLUMN row_version INT UNSIGNED NOT NULL DEFAULT 1, ADD COLUMN opened_on DATE NULL,
  ADD COLUMN best_before DATE NULL, ADD COLUMN holds DECIMAL(10,2) NULL, ADD COLUMN tare_g DECIMAL(8,1) NULL,
  ADD COLUMN paid_minor INT UNSIGNED NULL, ADD COLUMN place_id INT UNSIGNED NULL, ADD COLUMN gone_at DATETIME(3) NULL,
  ADD COLUMN kept_for INT UNSIGNED NULL,
  ADD CONSTRAINT lot_place FOREIGN KEY (place_id) REFERENCES place (id),
  ADD CONSTRAINT lot_kept_for FOREIGN KEY (kept_for) REFERENCES piece (id);
ALTER TABLE lot_use CHANGE COLUMN IF EXISTS amount_ml amount DECIMAL(10,2) NOT NULL;
ALTER TABLE lot_use CHANGE COLUMN IF EXISTS booked_ml booked DECIMAL(10,2) NOT NULL;
-- cans from which something was taken are open
UPDATE lot SET opened_on = (SELECT DATE(MIN(at)) FROM lot_use WHERE lot_use.lot_id = lot.id)
  WHERE opened_on IS NULL;
CREATE TABLE lot_move (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  lot_id INT UNSIGNED NOT NULL, kind ENUM('received','counted','spilt','taken','thrown','back','moved','opened','kept') NOT NULL,
  -- by how much what is left changed, in the unit of its product
  amount DECIMAL(10,2) NOT NULL DEFAULT 0, word VARCHAR(300) NOT NULL DEFAULT '',
  -- a piece that it was taken for, and the price then
  piece_id INT UNSIGNED NULL, cost_minor INT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  KEY by_lot (lot_id, id), KEY by_time (at),
  CONSTRAINT lot_move_lot FOREIGN KEY (lot_id) REFERENCES lot (id),
  CONSTRAINT lot_move_piece FOREIGN KEY (piece_id) REFERENCES piece (id),
  CONSTRAINT lot_move_person FOREIGN KEY (person_id) REFERENCES person (id)
);
