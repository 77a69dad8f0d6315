ALTER TABLE staged_questions
	-- what the rules for many may change, so that a plan can say in how many questions they do
	ADD COLUMN shuffle TINYINT UNSIGNED NULL AFTER points,
	ADD COLUMN tags TEXT NOT NULL DEFAULT '[]' AFTER shuffle,
	-- which of them a person or a mend has set for this question alone, as JSON
	ADD COLUMN set_alone VARCHAR(80) NOT NULL DEFAULT '[]' AFTER tags,
	-- its options name one another by letter or place, and it is not shuffled
	ADD COLUMN order_bound TINYINT UNSIGNED NOT NULL DEFAULT 0 AFTER set_alone;

UPDATE staged_questions SET shuffle = CASE JSON_EXTRACT(document, '$.shuffle') WHEN 'true' THEN 1 WHEN 'false' THEN 0 END,
	tags = COALESCE(JSON_EXTRACT(document, '$.tags'), '[]') WHERE JSON_VALID(document);

ALTER TABLE loads
	-- what the rules that are not the plain ones have changed, as it stands on the receipt
	ADD COLUMN effects TEXT NULL AFTER decision;

-- a part that names its questions keeps them in their order
ALTER TABLE quiz_part_questions ADD COLUMN position INT UNSIGNED NOT NULL DEFAULT 0;
UPDATE quiz_part_questions u JOIN (SELECT part_id, question_id, ROW_NUMBER() OVER (PARTITION BY part_id ORDER BY question_id) - 1 AS place FROM quiz_part_questions) n
	ON n.part_id = u.part_id AND n.question_id = u.question_id SET u.position = n.place;

-- what a part drew from and that is gone: it comes back when the same bank, category or question does
CREATE TABLE quiz_part_lost (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	part_id INT UNSIGNED NOT NULL,
	kind ENUM('bank', 'category', 'question') NOT NULL,
	bank_name VARCHAR(190) NOT NULL,
	-- the path of the category, its steps joined by a line feed; the title of a question
	name VARCHAR(2000) COLLATE utf8mb4_bin NOT NULL DEFAULT '',
	fingerprint BINARY(32) NULL,
	position INT UNSIGNED NOT NULL DEFAULT 0,
	lost DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_part (part_id),
	CONSTRAINT FOREIGN KEY (part_id) REFERENCES quiz_parts (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
