-- A piece that stands outdoors, and one whose marks and blotches may show.
ALTER TABLE piece
  MODIFY use_kind ENUM('display','daily','hard','outdoors') NOT NULL,
  ADD rustic BOOLEAN NOT NULL DEFAULT FALSE;
