-- Where oily rags lie until they are safe; what is not said is asked.
CREATE TABLE rag (
  step_id INT UNSIGNED PRIMARY KEY, how ENUM('flat','water','gone') NOT NULL, at DATETIME(3) NOT NULL,
  person_id INT UNSIGNED NULL,
  CONSTRAINT rag_step FOREIGN KEY (step_id) REFERENCES plan_step (id) ON DELETE CASCADE,
  CONSTRAINT rag_person FOREIGN KEY (person_id) REFERENCES person (id)
);
-- Cartridges for organic vapour: hours that they last in use, and days once they are open.
CREATE TABLE cartridge (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  person_id INT UNSIGNED NOT NULL, fitted_at DATETIME(3) NOT NULL, lasts_h DECIMAL(5,1) NOT NULL CHECK (lasts_h > 0),
  lasts_d SMALLINT UNSIGNED NOT NULL CHECK (lasts_d > 0),
  KEY by_person (person_id, fitted_at),
  CONSTRAINT cartridge_person FOREIGN KEY (person_id) REFERENCES person (id)
);
-- Somebody has looked for flames, heaters, pilot lights and plain fan motors; good for that day.
CREATE TABLE ignition_look (
  room_id INT UNSIGNED NOT NULL, day DATE NOT NULL, at DATETIME(3) NOT NULL, person_id INT UNSIGNED NULL,
  PRIMARY KEY (room_id, day),
  CONSTRAINT ignition_room FOREIGN KEY (room_id) REFERENCES room (id) ON DELETE CASCADE,
  CONSTRAINT ignition_person FOREIGN KEY (person_id) REFERENCES person (id)
);
-- Limits in air that the shop sets itself, mg/m3, and where they come from.
CREATE TABLE own_limit (
  slug VARCHAR(40) PRIMARY KEY, mg_m3 DECIMAL(9,2) NOT NULL CHECK (mg_m3 > 0), source VARCHAR(120) NOT NULL
);
-- VOC in a year that the house may give off, g.
ALTER TABLE shop ADD COLUMN voc_year_g INT UNSIGNED NULL;
-- Waste that was handed in.
CREATE TABLE waste_receipt (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  at DATETIME(3) NOT NULL, taken_to VARCHAR(120) NOT NULL, receipt VARCHAR(60) NOT NULL DEFAULT '',
  litres DECIMAL(8,2) NOT NULL CHECK (litres >= 0), content VARCHAR(500) NOT NULL, person_id INT UNSIGNED NOT NULL,
  KEY (at), CONSTRAINT waste_person FOREIGN KEY (person_id) REFERENCES person (id)
);
