-- Safety data sheets as files; the newest of a product counts, those before stay.
CREATE TABLE product_sheet (
  id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  product_id INT UNSIGNED NOT NULL, data MEDIUMBLOB NOT NULL,
  person_id INT UNSIGNED NOT NULL, at DATETIME(3) NOT NULL,
  KEY by_product (product_id, id),
  CONSTRAINT sheet_product FOREIGN KEY (product_id) REFERENCES product (id),
  CONSTRAINT sheet_person FOREIGN KEY (person_id) REFERENCES person (id)
);
