-- Route and plan: filler, bleach, house methods of the shop and of one piece.
ALTER TABLE piece ADD COLUMN fill VARCHAR(30) NOT NULL DEFAULT 'none',
  ADD COLUMN bleach VARCHAR(30) NOT NULL DEFAULT 'none', ADD COLUMN house JSON NULL;
CREATE TABLE house_method (slug VARCHAR(40) PRIMARY KEY, choice VARCHAR(30) NOT NULL);
