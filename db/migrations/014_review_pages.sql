-- what a load comes to by its decision, as it was counted last; `state` says of which state of load, course and decision
CREATE TABLE load_summaries (
	load_id INT UNSIGNED NOT NULL PRIMARY KEY,
	state VARCHAR(120) CHARACTER SET ascii NOT NULL,
	document LONGTEXT NOT NULL,
	CONSTRAINT FOREIGN KEY (load_id) REFERENCES loads (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

-- the questions of a load that a rule speaks of
ALTER TABLE staged_reports ADD KEY by_rule (load_id, rule, staged_id);
