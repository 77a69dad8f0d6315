-- Checks that hold a question against those that may be like it: two that are alike have a key in common, and the pairs that
-- are alike are kept, each both ways.
CREATE TABLE check_keys (
	course_id INT UNSIGNED NOT NULL,
	rule VARCHAR(60) CHARACTER SET ascii NOT NULL,
	-- the beginning of a SHA-256
	key_hash BINARY(8) NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	PRIMARY KEY (course_id, rule, key_hash, question_id),
	KEY by_question (question_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

CREATE TABLE check_pairs (
	rule VARCHAR(60) CHARACTER SET ascii NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	other_id BIGINT UNSIGNED NOT NULL,
	PRIMARY KEY (question_id, rule, other_id),
	KEY by_other (other_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (other_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- What somebody has waived, with the reason: a check for one question, for two that are both meant, for a category with all
-- under it, or for the course.
CREATE TABLE waivers (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	rule VARCHAR(60) CHARACTER SET ascii NOT NULL,
	scope ENUM('question', 'pair', 'category', 'course') NOT NULL,
	question_id BIGINT UNSIGNED NULL,
	other_id BIGINT UNSIGNED NULL,
	category_id INT UNSIGNED NULL,
	reason VARCHAR(1000) NOT NULL DEFAULT '',
	person_id INT UNSIGNED NOT NULL,
	made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_rule (course_id, rule),
	KEY by_question (question_id, rule),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (other_id) REFERENCES questions (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (category_id) REFERENCES categories (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- snags that are waived: they are found all the same, and stand open again once the waiver is taken back
CREATE TABLE waived_snags (
	id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	waiver_id INT UNSIGNED NOT NULL,
	course_id INT UNSIGNED NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	rule VARCHAR(60) NOT NULL,
	severity ENUM('broken', 'doubtful', 'untidy') NOT NULL,
	message TEXT NOT NULL,
	words TEXT NOT NULL,
	place VARCHAR(1000) NOT NULL DEFAULT '',
	line INT UNSIGNED NULL,
	KEY by_question (question_id, rule),
	KEY by_rule (course_id, rule),
	CONSTRAINT FOREIGN KEY (waiver_id) REFERENCES waivers (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- how many snags of each check were open in a course when it was counted last on a day
CREATE TABLE snag_days (
	course_id INT UNSIGNED NOT NULL,
	day DATE NOT NULL,
	rule VARCHAR(60) NOT NULL,
	severity ENUM('broken', 'doubtful', 'untidy') NOT NULL,
	questions INT UNSIGNED NOT NULL,
	PRIMARY KEY (course_id, day, rule),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- a check that is off until somebody turns it on is off where settings were kept before it came
UPDATE courses SET settings = JSON_ARRAY_APPEND(settings, '$.checksOff', 'no-feedback')
	WHERE settings IS NOT NULL AND JSON_VALID(settings) AND JSON_EXTRACT(settings, '$.checksOff') IS NOT NULL AND NOT JSON_CONTAINS(settings, '"no-feedback"', '$.checksOff');
