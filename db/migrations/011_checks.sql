-- Checks over many: what they have noted of each question, and which edition of all checks a question was checked by.
ALTER TABLE questions
	ADD COLUMN checked INT UNSIGNED NOT NULL DEFAULT 0,
	ADD KEY by_checked (course_id, checked);

CREATE TABLE check_notes (
	question_id BIGINT UNSIGNED NOT NULL,
	rule VARCHAR(60) CHARACTER SET ascii NOT NULL,
	course_id INT UNSIGNED NOT NULL,
	-- names those that are held against one another: the beginning of a SHA-256
	group_hash BINARY(8) NOT NULL,
	note TEXT NOT NULL,
	PRIMARY KEY (question_id, rule),
	KEY by_group (course_id, rule, group_hash, question_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- how far a course is checked by the checks as they are now
CREATE TABLE course_checks (
	course_id INT UNSIGNED NOT NULL PRIMARY KEY,
	state ENUM('running', 'done', 'stopped', 'failed') NOT NULL DEFAULT 'done',
	done INT UNSIGNED NOT NULL DEFAULT 0,
	total INT UNSIGNED NOT NULL DEFAULT 0,
	failure VARCHAR(1000) NOT NULL DEFAULT '',
	changed DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3) ON UPDATE CURRENT_TIMESTAMP(3),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;
