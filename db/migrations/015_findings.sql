-- what the checks over trees and quizzes find in a course, as it was found last; `state` says of which state and which checks
CREATE TABLE course_findings (
	course_id INT UNSIGNED NOT NULL PRIMARY KEY,
	state VARCHAR(60) CHARACTER SET ascii NOT NULL,
	document LONGTEXT NOT NULL,
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;
