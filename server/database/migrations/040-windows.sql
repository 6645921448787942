-- When the window of a step closes that what comes before it opens, NULL where nothing presses.
ALTER TABLE schedule_step ADD COLUMN closes_at DATETIME(3) NULL;
