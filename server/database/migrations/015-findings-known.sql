-- What was found when the plan was made: what came later offers a change of plan.
ALTER TABLE piece ADD known_findings JSON NULL;
