-- what tells a question apart from others that are like it, and who has verified its key
ALTER TABLE questions
	ADD COLUMN identifier VARCHAR(190) COLLATE utf8mb4_bin NOT NULL DEFAULT '' AFTER staged_id,
	-- the sorted 32-bit hashes of its words; null for what was taken in before they were kept
	ADD COLUMN word_hashes BLOB NULL AFTER fingerprint,
	ADD COLUMN verified_by INT UNSIGNED NULL,
	ADD COLUMN verified DATETIME(3) NULL;

ALTER TABLE staged_questions
	ADD COLUMN identifier VARCHAR(190) COLLATE utf8mb4_bin NOT NULL DEFAULT '' AFTER number,
	ADD COLUMN word_hashes BLOB NULL AFTER fingerprint,
	-- the folders in the package that it stood in, as a path: another source of categories
	ADD COLUMN folder_path VARCHAR(2000) COLLATE utf8mb4_bin NOT NULL DEFAULT '' AFTER category_path,
	-- the category that a person has put it in; null where it stays as it was found
	ADD COLUMN placed_path VARCHAR(2000) COLLATE utf8mb4_bin NULL AFTER category_path,
	-- what a person has decided for it alone
	ADD COLUMN choice ENUM('leave', 'aside') NULL,
	-- how it stands to the questions of the course, and to which of them
	ADD COLUMN match_kind ENUM('new', 'same', 'changed', 'near') NOT NULL DEFAULT 'new',
	ADD COLUMN match_question_id BIGINT UNSIGNED NULL,
	ADD COLUMN match_likeness TINYINT UNSIGNED NULL,
	ADD COLUMN match_rule ENUM('skip', 'beside', 'replace') NULL,
	-- the credits in it that are neither nothing nor all, as JSON
	ADD COLUMN part_credits VARCHAR(600) NOT NULL DEFAULT '[]',
	ADD COLUMN verified_by INT UNSIGNED NULL,
	ADD COLUMN verified DATETIME(3) NULL,
	ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1,
	-- the document as it was read, where a person has changed it since
	ADD COLUMN original LONGTEXT NULL,
	MODIFY COLUMN outcome ENUM('waiting', 'taken', 'replaced', 'aside', 'left', 'skipped') NOT NULL DEFAULT 'waiting',
	ADD KEY by_outcome (load_id, outcome);

ALTER TABLE loads
	-- what the package calls itself
	ADD COLUMN package_title VARCHAR(255) NOT NULL DEFAULT '' AFTER format,
	-- goes up with every decision, so that two people on one load see each other's
	ADD COLUMN review_version INT UNSIGNED NOT NULL DEFAULT 1 AFTER decision,
	ADD COLUMN decided_by INT UNSIGNED NULL AFTER review_version,
	-- when it was last held against the course
	ADD COLUMN compared DATETIME(3) NULL AFTER decided_by,
	-- what the other system says that it has imported
	ADD COLUMN told_count INT UNSIGNED NULL;

-- what a question was before something was put in its place
CREATE TABLE question_versions (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	question_id BIGINT UNSIGNED NOT NULL,
	version INT UNSIGNED NOT NULL,
	kind VARCHAR(24) NOT NULL,
	title VARCHAR(500) NOT NULL,
	stem_text TEXT NOT NULL,
	points DOUBLE NULL,
	document LONGTEXT NOT NULL,
	fingerprint BINARY(32) NOT NULL,
	word_hashes BLOB NULL,
	identifier VARCHAR(190) COLLATE utf8mb4_bin NOT NULL DEFAULT '',
	verified_by INT UNSIGNED NULL,
	verified DATETIME(3) NULL,
	-- what was open on it then, as JSON
	snags LONGTEXT NULL,
	-- the load that replaced it, and the question of it that did
	load_id INT UNSIGNED NULL,
	staged_id BIGINT UNSIGNED NULL,
	replaced DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_question (question_id, version),
	KEY by_load (load_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- the rules that a course remembers (no name), and those that were saved by name
CREATE TABLE rule_sets (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	name VARCHAR(120) NOT NULL,
	document TEXT NOT NULL,
	UNIQUE KEY by_name (course_id, name),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
