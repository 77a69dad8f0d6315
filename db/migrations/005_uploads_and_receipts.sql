-- a file in a course by its content, so that the same one is known again
ALTER TABLE loads ADD KEY by_file (course_id, file_id);

-- the receipt as it was when a load was taken in, kept for ever
ALTER TABLE ledger ADD COLUMN receipt LONGTEXT NULL AFTER address;
