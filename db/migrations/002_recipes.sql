-- recipes: what a user has said of files of no standard shape, kept by name for the next time
CREATE TABLE recipes (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	course_id INT UNSIGNED NOT NULL,
	person_id INT UNSIGNED NOT NULL,
	name VARCHAR(120) NOT NULL,
	document LONGTEXT NOT NULL,
	created DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	UNIQUE KEY by_name (course_id, name),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- the recipe by which a load is read; null where it is guessed, or where the format needs none
ALTER TABLE loads ADD COLUMN recipe LONGTEXT NULL AFTER format;
