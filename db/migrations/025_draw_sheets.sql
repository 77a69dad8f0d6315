-- quizzes as draw sheets. Those that are here keep the sittings that they have: they go on being drawn by rule 1.
ALTER TABLE quizzes
	MODIFY COLUMN state ENUM('draft', 'ready', 'sent') NOT NULL DEFAULT 'draft',
	ADD COLUMN drawing_rule TINYINT UNSIGNED NOT NULL DEFAULT 1,
	-- what holds for all its parts, as JSON: pairs, groups, their order, questions whose options stay
	ADD COLUMN rules LONGTEXT NOT NULL DEFAULT '{}',
	-- description, limits, dates, what is shown, the grade, as JSON
	ADD COLUMN settings LONGTEXT NOT NULL DEFAULT '{}',
	ADD COLUMN changed_by INT UNSIGNED NULL;
ALTER TABLE quizzes ALTER COLUMN drawing_rule SET DEFAULT 3;

ALTER TABLE quiz_parts
	ADD COLUMN sequence ENUM('shuffled', 'kept', 'easy first') NOT NULL DEFAULT 'shuffled' AFTER points_each,
	-- what is asked of the questions of its categories, as JSON
	ADD COLUMN conditions LONGTEXT NOT NULL DEFAULT '{}',
	-- the quotas of what is drawn, as JSON
	ADD COLUMN quotas LONGTEXT NOT NULL DEFAULT '[]';
UPDATE quiz_parts SET sequence = IF(shuffle_questions, 'shuffled', 'kept');
ALTER TABLE quiz_parts DROP COLUMN shuffle_questions;

-- a question that a part names: one of its list, or taken into its pool or out of it by hand
ALTER TABLE quiz_part_questions ADD COLUMN role ENUM('listed', 'included', 'excluded') NOT NULL DEFAULT 'listed';
ALTER TABLE quiz_part_lost ADD COLUMN role ENUM('listed', 'included', 'excluded') NOT NULL DEFAULT 'listed';

-- a quiz as it was before somebody changed it
CREATE TABLE quiz_versions (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	quiz_id INT UNSIGNED NOT NULL,
	version INT UNSIGNED NOT NULL,
	-- who changed it then, and when
	person_id INT UNSIGNED NULL,
	changed DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	document LONGTEXT NOT NULL,
	KEY by_quiz (quiz_id, id),
	CONSTRAINT FOREIGN KEY (quiz_id) REFERENCES quizzes (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
