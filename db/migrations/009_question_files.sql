-- The files that a question uses or has used: they are kept as long as it is, whatever becomes of the load that brought them.
CREATE TABLE question_files (
	question_id BIGINT UNSIGNED NOT NULL,
	file_id BIGINT UNSIGNED NOT NULL,
	PRIMARY KEY (question_id, file_id),
	KEY by_file (file_id),
	CONSTRAINT FOREIGN KEY (question_id) REFERENCES questions (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (file_id) REFERENCES files (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

INSERT IGNORE INTO question_files (question_id, file_id)
SELECT q.id, f.id FROM questions q JOIN JSON_TABLE(q.document, '$.attachments[*]' COLUMNS (hash CHAR(64) PATH '$.hash')) a JOIN files f ON f.hash = UNHEX(a.hash)
WHERE q.document LIKE '%"hash":"%';

INSERT IGNORE INTO question_files (question_id, file_id)
SELECT v.question_id, f.id FROM question_versions v JOIN JSON_TABLE(v.document, '$.attachments[*]' COLUMNS (hash CHAR(64) PATH '$.hash')) a JOIN files f ON f.hash = UNHEX(a.hash)
WHERE v.document LIKE '%"hash":"%';
