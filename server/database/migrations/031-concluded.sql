-- What conclusions about pieces are kept by: what the shop and its store last told, and how often an air log was read.
ALTER TABLE event ADD KEY event_topic (topic, id);
ALTER TABLE shop ADD COLUMN air_logs INT UNSIGNED NOT NULL DEFAULT 0;
