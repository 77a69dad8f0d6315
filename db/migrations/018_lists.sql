-- lists that are filtered and sorted are read from one index, in the order in which they stand
ALTER TABLE questions
	DROP KEY IF EXISTS by_key,
	ADD KEY IF NOT EXISTS by_filters (bank_id, category_id, id, kind, points, verified, disputed_by, machine, shuffle, has_feedback, difficulty, language, created, changed, changed_by, load_id),
	DROP KEY IF EXISTS by_points,
	ADD KEY IF NOT EXISTS by_points (bank_id, points, id, category_id),
	ADD KEY IF NOT EXISTS by_kind (bank_id, kind, id, category_id);

-- the tags of each question, one a line, as its document has them
CREATE TABLE question_tags (
	question_id BIGINT UNSIGNED NOT NULL,
	tag VARCHAR(120) NOT NULL,
	PRIMARY KEY (question_id, tag),
	KEY by_tag (tag, question_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin;
INSERT IGNORE INTO question_tags (question_id, tag)
	SELECT q.id, t.tag FROM questions q JOIN JSON_TABLE(q.tags, '$[*]' COLUMNS (tag VARCHAR(120) PATH '$')) t WHERE q.tags <> '[]' AND t.tag IS NOT NULL;
