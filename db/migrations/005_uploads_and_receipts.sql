-- a file in a course by its content, so that the same one is known again
ALTER TABLE loads ADD KEY by_file (course_id, file_id);

-- what tells a file from another of the same name and size while it is being sent: when it was last changed
ALTER TABLE loads ADD COLUMN upload_mark VARCHAR(40) COLLATE utf8mb4_bin NOT NULL DEFAULT '' AFTER file_name;

-- the receipt as it was when a load was taken in, kept for ever
ALTER TABLE ledger ADD COLUMN receipt LONGTEXT NULL AFTER address;
