-- a deed that has a way back; what it changed stands in the two tables below
ALTER TABLE ledger
	ADD COLUMN way_back ENUM('none', 'open', 'done') NOT NULL DEFAULT 'none',
	-- the deed that took this one back
	ADD COLUMN undone_by BIGINT UNSIGNED NULL;

ALTER TABLE questions
	ADD COLUMN tags TEXT NOT NULL DEFAULT '[]' AFTER points,
	ADD COLUMN shuffle TINYINT UNSIGNED NULL AFTER tags,
	ADD COLUMN difficulty VARCHAR(60) NOT NULL DEFAULT '' AFTER shuffle,
	ADD COLUMN language VARCHAR(35) NOT NULL DEFAULT '' AFTER difficulty,
	-- there is something that a student is told after answering
	ADD COLUMN has_feedback TINYINT UNSIGNED NOT NULL DEFAULT 0 AFTER language,
	-- a language model wrote it, so that its key is looked at
	ADD COLUMN machine TINYINT UNSIGNED NOT NULL DEFAULT 0,
	-- what somebody doubts about its key
	ADD COLUMN disputed VARCHAR(1000) NULL,
	ADD COLUMN disputed_by INT UNSIGNED NULL,
	ADD COLUMN verified_version INT UNSIGNED NULL,
	ADD COLUMN copied_from BIGINT UNSIGNED NULL,
	-- the deed that made it, where no load did
	ADD COLUMN deed_id BIGINT UNSIGNED NULL,
	ADD COLUMN changed DATETIME(3) NULL,
	ADD COLUMN changed_by INT UNSIGNED NULL,
	ADD KEY by_deed (deed_id),
	ADD KEY by_title (bank_id, title, id),
	ADD KEY by_points (bank_id, points, id),
	ADD KEY by_difficulty (bank_id, difficulty, id),
	ADD KEY by_created (bank_id, created, id),
	ADD KEY by_changed (bank_id, changed, id),
	ADD KEY by_key (bank_id, category_id, verified, disputed_by, machine);

ALTER TABLE question_versions
	ADD COLUMN tags TEXT NOT NULL DEFAULT '[]',
	ADD COLUMN shuffle TINYINT UNSIGNED NULL,
	ADD COLUMN difficulty VARCHAR(60) NOT NULL DEFAULT '',
	ADD COLUMN language VARCHAR(35) NOT NULL DEFAULT '',
	ADD COLUMN has_feedback TINYINT UNSIGNED NOT NULL DEFAULT 0,
	ADD COLUMN machine TINYINT UNSIGNED NOT NULL DEFAULT 0,
	-- the deed that put something else in its place
	ADD COLUMN deed_id BIGINT UNSIGNED NULL,
	ADD KEY by_deed (deed_id);

ALTER TABLE staged_questions
	ADD COLUMN difficulty VARCHAR(60) NOT NULL DEFAULT '',
	ADD COLUMN language VARCHAR(35) NOT NULL DEFAULT '',
	ADD COLUMN has_feedback TINYINT UNSIGNED NOT NULL DEFAULT 0,
	ADD COLUMN machine TINYINT UNSIGNED NOT NULL DEFAULT 0;

UPDATE questions SET
	tags = COALESCE(JSON_EXTRACT(document, '$.tags'), '[]'),
	shuffle = CASE JSON_EXTRACT(document, '$.shuffle') WHEN 'true' THEN 1 WHEN 'false' THEN 0 END,
	difficulty = LEFT(COALESCE(JSON_VALUE(document, '$.difficulty'), ''), 60),
	language = LEFT(COALESCE(JSON_VALUE(document, '$.language'), ''), 35),
	has_feedback = IF(COALESCE(JSON_EXTRACT(document, '$.feedback'), '{}') IN ('{}', '{ }'), 0, 1),
	verified_version = IF(verified IS NULL, NULL, version)
WHERE JSON_VALID(document);
UPDATE question_versions SET
	tags = COALESCE(JSON_EXTRACT(document, '$.tags'), '[]'),
	shuffle = CASE JSON_EXTRACT(document, '$.shuffle') WHEN 'true' THEN 1 WHEN 'false' THEN 0 END,
	difficulty = LEFT(COALESCE(JSON_VALUE(document, '$.difficulty'), ''), 60),
	language = LEFT(COALESCE(JSON_VALUE(document, '$.language'), ''), 35),
	has_feedback = IF(COALESCE(JSON_EXTRACT(document, '$.feedback'), '{}') IN ('{}', '{ }'), 0, 1)
WHERE JSON_VALID(document);
UPDATE staged_questions SET
	difficulty = LEFT(COALESCE(JSON_VALUE(document, '$.difficulty'), ''), 60),
	language = LEFT(COALESCE(JSON_VALUE(document, '$.language'), ''), 35),
	has_feedback = IF(COALESCE(JSON_EXTRACT(document, '$.feedback'), '{}') IN ('{}', '{ }'), 0, 1)
WHERE JSON_VALID(document);

-- what a deed has done to each question: where it stood and stands, what it said before, and what was known of its key
CREATE TABLE changed_questions (
	deed_id BIGINT UNSIGNED NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	sort ENUM('placed', 'written', 'keyed', 'made') NOT NULL,
	course_before INT UNSIGNED NULL,
	bank_before INT UNSIGNED NULL,
	category_before INT UNSIGNED NULL,
	course_after INT UNSIGNED NULL,
	bank_after INT UNSIGNED NULL,
	category_after INT UNSIGNED NULL,
	-- the version that the deed has made
	version_after INT UNSIGNED NULL,
	-- verified_by, verified, verified_version, disputed, disputed_by, machine as JSON
	key_before VARCHAR(5000) NULL,
	key_after VARCHAR(5000) NULL,
	PRIMARY KEY (deed_id, question_id),
	KEY by_question (question_id, deed_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- what a deed has done to banks and categories: each as it was and as it is by the deed, as JSON; nothing where it was not there
CREATE TABLE changed_things (
	deed_id BIGINT UNSIGNED NOT NULL,
	thing ENUM('bank', 'category') NOT NULL,
	thing_id INT UNSIGNED NOT NULL,
	before_it LONGTEXT NULL,
	after_it LONGTEXT NULL,
	PRIMARY KEY (deed_id, thing, thing_id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin;

ALTER TABLE banks
	ADD COLUMN description TEXT NULL,
	ADD COLUMN made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	ADD COLUMN made_by INT UNSIGNED NULL;
ALTER TABLE categories ADD COLUMN code VARCHAR(60) NOT NULL DEFAULT '';

-- what is in the bin of a course stands in a course of its own, to which nobody belongs
ALTER TABLE courses
	ADD COLUMN bin_of INT UNSIGNED NULL,
	ADD UNIQUE KEY by_bin (bin_of),
	ADD CONSTRAINT FOREIGN KEY (bin_of) REFERENCES courses (id) ON DELETE CASCADE;

-- files that were handed in while a question is edited, and that no question has yet
CREATE TABLE course_files (
	course_id INT UNSIGNED NOT NULL,
	file_id BIGINT UNSIGNED NOT NULL,
	handed DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	PRIMARY KEY (course_id, file_id),
	KEY by_file (file_id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (file_id) REFERENCES files (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- filters of a bank's questions that were saved by name, for all of the course
CREATE TABLE saved_filters (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	name VARCHAR(120) NOT NULL,
	-- the query of an address
	document TEXT NOT NULL,
	UNIQUE KEY by_name (course_id, name),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
