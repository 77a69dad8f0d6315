-- people and their sessions
CREATE TABLE people (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	name VARCHAR(120) NOT NULL,
	email VARCHAR(190) NOT NULL,
	password_hash VARCHAR(255) NOT NULL,
	wrong_passwords INT UNSIGNED NOT NULL DEFAULT 0,
	wait_until DATETIME(3) NULL,
	UNIQUE KEY by_email (email)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE sessions (
	-- SHA-256 of the token that the browser holds
	token_hash BINARY(32) NOT NULL PRIMARY KEY,
	person_id INT UNSIGNED NOT NULL,
	expires DATETIME(3) NOT NULL,
	KEY by_expiry (expires),
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

CREATE TABLE courses (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	code VARCHAR(40) NOT NULL,
	name VARCHAR(190) NOT NULL,
	intake VARCHAR(80) NOT NULL DEFAULT '',
	UNIQUE KEY by_code (code)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE memberships (
	person_id INT UNSIGNED NOT NULL,
	course_id INT UNSIGNED NOT NULL,
	role ENUM('change', 'look') NOT NULL,
	PRIMARY KEY (person_id, course_id),
	KEY by_course (course_id),
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- files: packages that came, packages that go, pictures; each content once, in chunks of at most 1 MiB
CREATE TABLE files (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	-- null while the file is still being written
	hash BINARY(32) NULL,
	size BIGINT UNSIGNED NOT NULL DEFAULT 0,
	begun DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	UNIQUE KEY by_hash (hash)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

CREATE TABLE file_chunks (
	file_id BIGINT UNSIGNED NOT NULL,
	number INT UNSIGNED NOT NULL,
	bytes MEDIUMBLOB NOT NULL,
	PRIMARY KEY (file_id, number),
	CONSTRAINT FOREIGN KEY (file_id) REFERENCES files (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- banks, their trees of categories, their questions
CREATE TABLE banks (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	name VARCHAR(190) NOT NULL,
	-- the load that made it, for the way back
	load_id INT UNSIGNED NULL,
	UNIQUE KEY by_name (course_id, name),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE categories (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	bank_id INT UNSIGNED NOT NULL,
	parent_id INT UNSIGNED NULL,
	name VARCHAR(255) NOT NULL,
	position INT UNSIGNED NOT NULL DEFAULT 0,
	load_id INT UNSIGNED NULL,
	KEY by_parent (bank_id, parent_id, position),
	KEY by_load (load_id),
	CONSTRAINT FOREIGN KEY (bank_id) REFERENCES banks (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (parent_id) REFERENCES categories (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin;

-- loads and what was found in them
CREATE TABLE loads (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	file_id BIGINT UNSIGNED NULL,
	file_name VARCHAR(255) NOT NULL,
	format VARCHAR(80) NOT NULL DEFAULT '',
	state ENUM('uploading', 'waiting', 'reading', 'review', 'taken', 'undone', 'stopped', 'failed') NOT NULL,
	size BIGINT UNSIGNED NOT NULL DEFAULT 0,
	bytes_read BIGINT UNSIGNED NOT NULL DEFAULT 0,
	bytes_total BIGINT UNSIGNED NOT NULL DEFAULT 0,
	questions_found INT UNSIGNED NOT NULL DEFAULT 0,
	snags_found INT UNSIGNED NOT NULL DEFAULT 0,
	failure VARCHAR(1000) NOT NULL DEFAULT '',
	-- what was decided when it was taken in
	decision LONGTEXT NULL,
	bank_id INT UNSIGNED NULL,
	created DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	settled DATETIME(3) NULL,
	KEY by_course (course_id, id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id),
	CONSTRAINT FOREIGN KEY (file_id) REFERENCES files (id),
	CONSTRAINT FOREIGN KEY (bank_id) REFERENCES banks (id) ON DELETE SET NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- a question as content: one row a question, the rest of it in its document
CREATE TABLE questions (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	bank_id INT UNSIGNED NOT NULL,
	category_id INT UNSIGNED NULL,
	load_id INT UNSIGNED NULL,
	staged_id BIGINT UNSIGNED NULL,
	kind VARCHAR(24) NOT NULL,
	title VARCHAR(500) NOT NULL,
	stem_text TEXT NOT NULL,
	points DOUBLE NULL,
	document LONGTEXT NOT NULL,
	-- SHA-256 of the canonical form: the same for two questions exactly when they say the same
	fingerprint BINARY(32) NOT NULL,
	version INT UNSIGNED NOT NULL DEFAULT 1,
	created DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_category (bank_id, category_id, id),
	KEY by_fingerprint (course_id, fingerprint),
	KEY by_load (load_id),
	KEY by_staged (staged_id),
	FULLTEXT KEY by_words (title, stem_text),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (bank_id) REFERENCES banks (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (category_id) REFERENCES categories (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- what was found in a load, one row a question, kept after taking in as the receipt
CREATE TABLE staged_questions (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	load_id INT UNSIGNED NOT NULL,
	number INT UNSIGNED NOT NULL,
	-- the category as a path, its steps joined by a line feed; nothing where the file gives none
	category_path VARCHAR(2000) COLLATE utf8mb4_bin NOT NULL DEFAULT '',
	kind VARCHAR(24) NOT NULL,
	title VARCHAR(500) NOT NULL,
	stem_text TEXT NOT NULL,
	points DOUBLE NULL,
	document LONGTEXT NOT NULL,
	fingerprint BINARY(32) NOT NULL,
	source MEDIUMTEXT NOT NULL,
	broken TINYINT UNSIGNED NOT NULL DEFAULT 0,
	outcome ENUM('waiting', 'taken', 'aside', 'left') NOT NULL DEFAULT 'waiting',
	UNIQUE KEY by_number (load_id, number),
	KEY by_fingerprint (load_id, fingerprint),
	CONSTRAINT FOREIGN KEY (load_id) REFERENCES loads (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE staged_reports (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	load_id INT UNSIGNED NOT NULL,
	-- null where the report speaks of the file as a whole
	staged_id BIGINT UNSIGNED NULL,
	rule VARCHAR(60) NOT NULL,
	severity ENUM('broken', 'doubtful', 'untidy') NOT NULL,
	message TEXT NOT NULL,
	words TEXT NOT NULL,
	place VARCHAR(1000) NOT NULL DEFAULT '',
	line INT UNSIGNED NULL,
	KEY by_load (load_id, staged_id),
	KEY by_question (staged_id),
	CONSTRAINT FOREIGN KEY (load_id) REFERENCES loads (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (staged_id) REFERENCES staged_questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE staged_quizzes (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	load_id INT UNSIGNED NOT NULL,
	title VARCHAR(255) NOT NULL,
	document LONGTEXT NOT NULL,
	KEY by_load (load_id),
	CONSTRAINT FOREIGN KEY (load_id) REFERENCES loads (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- which pictures a load or a bank needs
CREATE TABLE load_files (
	load_id INT UNSIGNED NOT NULL,
	file_id BIGINT UNSIGNED NOT NULL,
	PRIMARY KEY (load_id, file_id),
	CONSTRAINT FOREIGN KEY (load_id) REFERENCES loads (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (file_id) REFERENCES files (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- findings on the questions of a course
CREATE TABLE snags (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	rule VARCHAR(60) NOT NULL,
	severity ENUM('broken', 'doubtful', 'untidy') NOT NULL,
	message TEXT NOT NULL,
	words TEXT NOT NULL,
	place VARCHAR(1000) NOT NULL DEFAULT '',
	line INT UNSIGNED NULL,
	KEY by_rule (course_id, rule, question_id),
	KEY by_question (question_id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- quizzes: parts that draw from categories, or from questions that are named
CREATE TABLE quizzes (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	title VARCHAR(255) NOT NULL,
	state ENUM('draft', 'ready') NOT NULL DEFAULT 'draft',
	load_id INT UNSIGNED NULL,
	version INT UNSIGNED NOT NULL DEFAULT 1,
	changed DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_course (course_id, id),
	KEY by_load (load_id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE quiz_parts (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	quiz_id INT UNSIGNED NOT NULL,
	position INT UNSIGNED NOT NULL,
	title VARCHAR(255) NOT NULL,
	-- null draws all there are
	draw INT UNSIGNED NULL,
	points_each DOUBLE NULL,
	shuffle_questions TINYINT UNSIGNED NOT NULL DEFAULT 1,
	shuffle_options TINYINT UNSIGNED NOT NULL DEFAULT 1,
	with_under TINYINT UNSIGNED NOT NULL DEFAULT 1,
	KEY by_quiz (quiz_id, position),
	CONSTRAINT FOREIGN KEY (quiz_id) REFERENCES quizzes (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE quiz_part_categories (
	part_id INT UNSIGNED NOT NULL,
	category_id INT UNSIGNED NOT NULL,
	PRIMARY KEY (part_id, category_id),
	CONSTRAINT FOREIGN KEY (part_id) REFERENCES quiz_parts (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (category_id) REFERENCES categories (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- a whole bank as a pool, or only its questions without a category
CREATE TABLE quiz_part_banks (
	part_id INT UNSIGNED NOT NULL,
	bank_id INT UNSIGNED NOT NULL,
	PRIMARY KEY (part_id, bank_id),
	CONSTRAINT FOREIGN KEY (part_id) REFERENCES quiz_parts (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (bank_id) REFERENCES banks (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

CREATE TABLE quiz_part_questions (
	part_id INT UNSIGNED NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	PRIMARY KEY (part_id, question_id),
	KEY by_question (question_id),
	CONSTRAINT FOREIGN KEY (part_id) REFERENCES quiz_parts (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- what went out
CREATE TABLE dispatches (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	bank_id INT UNSIGNED NULL,
	quiz_id INT UNSIGNED NULL,
	title VARCHAR(255) NOT NULL,
	format VARCHAR(20) NOT NULL,
	state ENUM('waiting', 'writing', 'proving', 'done', 'stopped', 'failed') NOT NULL DEFAULT 'waiting',
	file_id BIGINT UNSIGNED NULL,
	file_name VARCHAR(255) NOT NULL,
	done INT UNSIGNED NOT NULL DEFAULT 0,
	total INT UNSIGNED NOT NULL DEFAULT 0,
	proof LONGTEXT NULL,
	failure VARCHAR(1000) NOT NULL DEFAULT '',
	created DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_course (course_id, id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id),
	CONSTRAINT FOREIGN KEY (file_id) REFERENCES files (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- work in the background: a row is taken by one process for as long as its lease is renewed
CREATE TABLE jobs (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	kind VARCHAR(20) NOT NULL,
	subject_id INT UNSIGNED NOT NULL,
	state ENUM('waiting', 'running', 'done', 'failed', 'stopped') NOT NULL DEFAULT 'waiting',
	owner VARCHAR(80) NOT NULL DEFAULT '',
	lease_until DATETIME(3) NULL,
	tries TINYINT UNSIGNED NOT NULL DEFAULT 0,
	stop_asked TINYINT UNSIGNED NOT NULL DEFAULT 0,
	failure VARCHAR(1000) NOT NULL DEFAULT '',
	created DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_state (state, lease_until, id),
	KEY by_subject (kind, subject_id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- the record of all that was done
CREATE TABLE ledger (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	deed VARCHAR(40) NOT NULL,
	subject VARCHAR(255) NOT NULL,
	questions INT UNSIGNED NOT NULL DEFAULT 0,
	address VARCHAR(255) NOT NULL DEFAULT '',
	done DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_course (course_id, id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
