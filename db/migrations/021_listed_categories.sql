-- The categories that the file of a load lists, as JSON of their paths: those in which nothing stands come in too.
ALTER TABLE loads ADD COLUMN categories MEDIUMTEXT NULL;
