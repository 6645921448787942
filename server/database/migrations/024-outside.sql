-- Dusty work that was carried outside.
ALTER TABLE plan_step ADD COLUMN outside BOOLEAN NOT NULL DEFAULT FALSE;
