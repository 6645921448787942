-- Words of the log and of notes are found by their beginning.
ALTER TABLE logbook ADD FULLTEXT KEY logbook_words (says);
ALTER TABLE piece ADD FULLTEXT KEY piece_words (name, note);
