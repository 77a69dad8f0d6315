-- the words by which a question is found, folded, each once, between spaces; a plus sign in front of them where not all
-- of them have room. They are filled in by the program (src/lib/server/db/searched-words.ts)
ALTER TABLE questions ADD COLUMN IF NOT EXISTS searched_words VARBINARY(1900) NOT NULL DEFAULT '' AFTER word_hashes;
ALTER TABLE staged_questions ADD COLUMN IF NOT EXISTS searched_words VARBINARY(1900) NOT NULL DEFAULT '' AFTER word_hashes;
ALTER TABLE question_versions ADD COLUMN IF NOT EXISTS searched_words VARBINARY(1900) NOT NULL DEFAULT '' AFTER word_hashes;

-- all the words of the questions for which that is too little
CREATE TABLE IF NOT EXISTS long_searched_words (
	question_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
	words MEDIUMBLOB NOT NULL,
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin;

-- they stand in an index of their own, and in that of what is filtered by, so that words are looked for there alone, with
-- filters and without
ALTER TABLE questions
	DROP KEY IF EXISTS by_filters,
	DROP KEY IF EXISTS by_words,
	ADD KEY by_filters (bank_id, category_id, id, kind, points, verified, disputed_by, machine, shuffle, has_feedback, difficulty, language, created, changed, changed_by, load_id, searched_words),
	ADD KEY by_searched (bank_id, category_id, id, searched_words);
