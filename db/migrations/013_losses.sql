-- What a format would keep, change and lose: kept with each question, as long as it and the format are what they were.
CREATE TABLE losses (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	-- the beginning of a SHA-256 of what follows
	hash BINARY(16) NOT NULL,
	outcome ENUM('kept', 'changed', 'lost') NOT NULL,
	what TEXT NOT NULL,
	-- how many questions are written for one
	written SMALLINT UNSIGNED NOT NULL,
	UNIQUE KEY by_hash (hash)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE question_losses (
	question_id BIGINT UNSIGNED NOT NULL,
	format VARCHAR(12) CHARACTER SET ascii NOT NULL,
	worked_out SMALLINT UNSIGNED NOT NULL,
	-- of which version of the question, and by which edition of the formats
	version INT UNSIGNED NOT NULL,
	edition SMALLINT UNSIGNED NOT NULL,
	loss_id INT UNSIGNED NOT NULL,
	PRIMARY KEY (question_id, format, worked_out),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (loss_id) REFERENCES losses (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- a loss table as it was shown, as long as nothing has changed in its course; or how far its making is
CREATE TABLE loss_tables (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	bank_id INT UNSIGNED NULL,
	quiz_id INT UNSIGNED NULL,
	format VARCHAR(12) CHARACTER SET ascii NOT NULL,
	worked_out SMALLINT UNSIGNED NOT NULL,
	edition SMALLINT UNSIGNED NOT NULL,
	stamp INT UNSIGNED NULL,
	document LONGTEXT NULL,
	done INT UNSIGNED NOT NULL DEFAULT 0,
	total INT UNSIGNED NOT NULL DEFAULT 0,
	failure VARCHAR(1000) NOT NULL DEFAULT '',
	KEY by_subject (course_id, bank_id, quiz_id, format, worked_out),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (bank_id) REFERENCES banks (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (quiz_id) REFERENCES quizzes (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;
