-- Film that was found on a face, by the gauge.
ALTER TABLE face ADD film_um SMALLINT UNSIGNED NULL;
