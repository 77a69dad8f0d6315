-- questions that were selected in a bank to be sent
CREATE TABLE selections (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	title VARCHAR(255) NOT NULL,
	made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_course (course_id, id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE selection_questions (
	selection_id INT UNSIGNED NOT NULL,
	question_id BIGINT UNSIGNED NOT NULL,
	-- the place in the order in which they are sent
	position INT UNSIGNED NOT NULL,
	PRIMARY KEY (selection_id, question_id),
	CONSTRAINT FOREIGN KEY (selection_id) REFERENCES selections (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

ALTER TABLE dispatches
	ADD COLUMN selection_id INT UNSIGNED NULL AFTER quiz_id,
	ADD CONSTRAINT FOREIGN KEY (selection_id) REFERENCES selections (id) ON DELETE SET NULL;
ALTER TABLE loss_tables
	ADD COLUMN selection_id INT UNSIGNED NULL AFTER quiz_id,
	ADD CONSTRAINT FOREIGN KEY (selection_id) REFERENCES selections (id) ON DELETE CASCADE;
