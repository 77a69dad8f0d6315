-- Counts that are kept as long as nothing changes in a course: its stamp goes up with every change of its questions.
ALTER TABLE courses ADD COLUMN stamp INT UNSIGNED NOT NULL DEFAULT 0;

CREATE TABLE course_counts (
	course_id INT UNSIGNED NOT NULL PRIMARY KEY,
	stamp INT UNSIGNED NOT NULL,
	document LONGTEXT NOT NULL,
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- counted, and gone through a page at a time, without a look at the questions themselves
ALTER TABLE questions ADD KEY by_place (bank_id, category_id, kind, id);
ALTER TABLE snags ADD KEY by_severity (course_id, rule, severity, question_id);
