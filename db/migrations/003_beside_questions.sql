-- what a package holds beside its questions: it is listed in the review, and nothing of it is taken in
CREATE TABLE staged_others (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	load_id INT UNSIGNED NOT NULL,
	path VARCHAR(1000) NOT NULL,
	type VARCHAR(120) NOT NULL,
	KEY by_load (load_id),
	CONSTRAINT FOREIGN KEY (load_id) REFERENCES loads (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- how many numeric questions stand in for a calculated one, where the format has no such kind
ALTER TABLE dispatches ADD COLUMN worked_out SMALLINT UNSIGNED NOT NULL DEFAULT 1 AFTER format;
