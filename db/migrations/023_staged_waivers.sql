-- What is waived of the questions of a load before they are taken in, with what was said, so that it can be said again. It
-- goes into the course with the questions.
CREATE TABLE staged_waivers (
	staged_id BIGINT UNSIGNED NOT NULL,
	rule VARCHAR(60) NOT NULL,
	load_id INT UNSIGNED NOT NULL,
	severity ENUM('broken', 'doubtful', 'untidy') NOT NULL,
	message TEXT NOT NULL,
	words TEXT NOT NULL,
	place VARCHAR(1000) NOT NULL DEFAULT '',
	line INT UNSIGNED NULL,
	reason VARCHAR(1000) NOT NULL DEFAULT '',
	person_id INT UNSIGNED NOT NULL,
	made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	PRIMARY KEY (staged_id, rule),
	KEY by_load (load_id, rule),
	CONSTRAINT FOREIGN KEY (staged_id) REFERENCES staged_questions (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
