-- Minutes of work done before this moment teach no pace, NULL: all do.
ALTER TABLE shop ADD COLUMN paces_from DATETIME(3) NULL;
