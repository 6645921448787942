-- What build-ups took the place of.
ALTER TABLE piece DROP COLUMN route, DROP COLUMN finish, DROP COLUMN colour, DROP COLUMN conditioner,
  DROP COLUMN fill, DROP COLUMN bleach, DROP COLUMN film_um;
DROP TABLE own_way_face;
DROP TABLE own_way;
