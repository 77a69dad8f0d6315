-- what a list of questions is ordered by beside what it had: the beginning of the stem and of the tags, and what is known
-- of the key (0 doubted, 1 by a machine, 2 not verified, 3 verified); and orders by language, person and load
ALTER TABLE questions
	ADD COLUMN IF NOT EXISTS stem_start VARCHAR(80) GENERATED ALWAYS AS (LEFT(stem_text, 80)) STORED,
	ADD COLUMN IF NOT EXISTS tags_start VARCHAR(80) GENERATED ALWAYS AS (IF(tags = '[]', '', LEFT(tags, 80))) STORED,
	ADD COLUMN IF NOT EXISTS key_rank TINYINT UNSIGNED GENERATED ALWAYS AS (IF(disputed IS NOT NULL, 0, IF(verified IS NOT NULL, 3, IF(machine = 1, 1, 2)))) STORED;
ALTER TABLE questions
	ADD KEY IF NOT EXISTS by_stem (bank_id, stem_start, id),
	ADD KEY IF NOT EXISTS by_tags (bank_id, tags_start, id),
	ADD KEY IF NOT EXISTS by_key_rank (bank_id, key_rank, id),
	ADD KEY IF NOT EXISTS by_language (bank_id, language, id),
	ADD KEY IF NOT EXISTS by_changer (bank_id, changed_by, id),
	ADD KEY IF NOT EXISTS by_arrival (bank_id, load_id, id);
