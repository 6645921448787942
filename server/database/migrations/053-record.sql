-- What the record asks by time.
ALTER TABLE plan_step ADD KEY by_finish (finished_at);
ALTER TABLE lot_use ADD KEY by_time (at);
ALTER TABLE pot_use ADD KEY by_time (at);
ALTER TABLE piece ADD KEY by_due (due_on);
ALTER TABLE piece ADD KEY by_home (handed_over_at);
