-- Each change of a piece raises its number, so that what is concluded of it can be kept and told stale anywhere.
ALTER TABLE piece ADD COLUMN changed_no INT UNSIGNED NOT NULL DEFAULT 0;
-- a grit is kept by its name: P320, CAMI 400, wool 0000
ALTER TABLE plan_step MODIFY COLUMN grits VARCHAR(160) NOT NULL DEFAULT '';
-- lookups by step and by name that went through whole tables
ALTER TABLE logbook ADD KEY by_step (step_id, kind);
ALTER TABLE client ADD KEY by_name (name, email);
ALTER TABLE part ADD KEY by_name (piece_id, name);
ALTER TABLE batch ADD KEY by_mixed (closed_at, mixed_at);
