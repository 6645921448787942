-- When a piece that is only asked about would be ready among all else in the shop, and by which state of both.
CREATE TABLE outlook (
  piece_id INT UNSIGNED PRIMARY KEY, changed_no INT UNSIGNED NOT NULL, schedule_id INT UNSIGNED NOT NULL,
  day DATE NOT NULL,
  -- NULL: not within the time that is planned ahead
  likely_at DATETIME(3) NULL, safe_at DATETIME(3) NULL,
  CONSTRAINT outlook_piece FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
