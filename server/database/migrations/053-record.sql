-- What the record asks by time, and what it can be narrowed by.
ALTER TABLE plan_step ADD KEY by_finish (finished_at);
ALTER TABLE plan_step ADD KEY by_product (product);
ALTER TABLE face ADD KEY by_species (species);
ALTER TABLE lot_use ADD KEY by_time (at);
ALTER TABLE pot_use ADD KEY by_time (at);
ALTER TABLE piece ADD KEY by_due (due_on);
ALTER TABLE piece ADD KEY by_home (handed_over_at);
-- A can that was opened often has a skin; it is strained before it is used.
ALTER TABLE lot ADD COLUMN skinned_on DATE NULL;
ALTER TABLE lot_move MODIFY COLUMN kind
  ENUM('received','counted','spilt','taken','thrown','back','moved','opened','kept','skinned','strained') NOT NULL;
