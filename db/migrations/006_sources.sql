ALTER TABLE staged_questions
	-- categories from other sources in the package, as paths: the sections that it stands in, and its metadata; null where there are none
	ADD COLUMN section_path VARCHAR(2000) COLLATE utf8mb4_bin NULL AFTER folder_path,
	ADD COLUMN metadata_path VARCHAR(2000) COLLATE utf8mb4_bin NULL AFTER section_path,
	-- it stands in a quiz, and in no bank and no category of its own
	ADD COLUMN quiz_only TINYINT UNSIGNED NOT NULL DEFAULT 0;

ALTER TABLE load_files
	-- what the package calls the file, and how many of its questions use it
	ADD COLUMN name VARCHAR(500) NOT NULL DEFAULT '',
	ADD COLUMN uses INT UNSIGNED NOT NULL DEFAULT 0;
