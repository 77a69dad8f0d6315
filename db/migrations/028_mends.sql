-- mends of many snags at once, done in the background: what was asked for, how far it is, and what came of it
CREATE TABLE mends (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	rule VARCHAR(60) NOT NULL,
	-- which of its snags are meant, as a filter
	within TEXT NOT NULL,
	state ENUM('waiting', 'running', 'done', 'stopped', 'failed') NOT NULL DEFAULT 'waiting',
	done INT UNSIGNED NOT NULL DEFAULT 0,
	total INT UNSIGNED NOT NULL,
	-- what came of it, as it is told
	result TEXT NULL,
	failure VARCHAR(1000) NOT NULL DEFAULT '',
	ended DATETIME(3) NULL,
	KEY by_course (course_id, id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
