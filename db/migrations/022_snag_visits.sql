-- When somebody looked at the snags of a course last, and when before that: what has come in between is new to them.
CREATE TABLE snag_visits (
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	seen DATETIME(3) NOT NULL,
	before_that DATETIME(3) NULL,
	PRIMARY KEY (course_id, person_id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;
