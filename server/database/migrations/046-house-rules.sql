-- Storage of what nobody fetches is counted from the day a piece was ready; a deposit is taken off what is to pay.
ALTER TABLE shop ADD COLUMN store_free_days SMALLINT UNSIGNED NOT NULL DEFAULT 14,
  ADD COLUMN store_day_minor INT UNSIGNED NOT NULL DEFAULT 0;
ALTER TABLE piece ADD COLUMN ready_at DATETIME(3) NULL, ADD COLUMN deposit_minor INT UNSIGNED NOT NULL DEFAULT 0;
UPDATE piece
  SET ready_at = (SELECT MAX(finished_at) FROM plan_step WHERE piece_id = piece.id AND plan_step.state = 'done')
  WHERE state IN ('ready', 'handed-over');
