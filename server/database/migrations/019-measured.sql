-- What was measured at the end of a step.
ALTER TABLE plan_step ADD measured JSON NULL;
