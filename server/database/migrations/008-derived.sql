-- Cautions follow from act, method, product, facts and room at every reading; "changed by hand" is told field by field.
ALTER TABLE plan_step DROP COLUMN cautions, DROP COLUMN by_hand, MODIFY COLUMN fields JSON NOT NULL DEFAULT '{}';
ALTER TABLE plan_step ADD KEY by_time (state, started_at);
