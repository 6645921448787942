-- When each piece is likely and safely ready, where nothing is sure: its schedule lived through so many times.
CREATE TABLE schedule_piece (
  schedule_id INT UNSIGNED NOT NULL, piece_id INT UNSIGNED NOT NULL,
  -- NULL: not within the time that is planned ahead
  likely_at DATETIME(3) NULL, safe_at DATETIME(3) NULL,
  -- share of lives in which it leaves after the day it is promised for, NULL where nothing is
  risk DECIMAL(4,3) NULL, runs INT UNSIGNED NOT NULL,
  PRIMARY KEY (schedule_id, piece_id),
  FOREIGN KEY (schedule_id) REFERENCES schedule (id) ON DELETE CASCADE,
  FOREIGN KEY (piece_id) REFERENCES piece (id) ON DELETE CASCADE
);
-- It goes before others where not all can be in time.
ALTER TABLE piece ADD COLUMN goes_first BOOLEAN NOT NULL DEFAULT FALSE;
-- Work that could be put together, and where there is more of it than hands.
ALTER TABLE schedule ADD COLUMN batches JSON NULL, ADD COLUMN overload JSON NULL;
-- Where the schedule before had it, NULL where it has not moved.
ALTER TABLE schedule_step ADD COLUMN was_at DATETIME(3) NULL, ADD COLUMN was_person_id INT UNSIGNED NULL;
