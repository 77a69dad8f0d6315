-- forms of a quiz for paper: which questions each has, drawn once, and which version of each question that was
CREATE TABLE quiz_forms (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	quiz_id INT UNSIGNED NOT NULL,
	made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	made_by INT UNSIGNED NULL,
	document LONGTEXT NOT NULL,
	KEY by_quiz (quiz_id, id),
	CONSTRAINT FOREIGN KEY (quiz_id) REFERENCES quizzes (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
