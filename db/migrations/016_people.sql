-- roles: look, work, manage; whoever could change a course looks after it
ALTER TABLE memberships MODIFY role ENUM('change', 'look', 'work', 'manage') NOT NULL;
UPDATE memberships SET role = 'manage' WHERE role = 'change';
ALTER TABLE memberships MODIFY role ENUM('look', 'work', 'manage') NOT NULL;

ALTER TABLE people
	-- looks after the installation: makes courses, manages all of them, invites
	ADD COLUMN keeper TINYINT UNSIGNED NOT NULL DEFAULT 0,
	-- has left; the name stays in the ledger
	ADD COLUMN gone DATETIME(3) NULL,
	ADD COLUMN joined DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3);
UPDATE people SET keeper = 1 ORDER BY id LIMIT 1;

ALTER TABLE sessions
	ADD COLUMN id INT UNSIGNED NOT NULL AUTO_INCREMENT,
	ADD COLUMN device VARCHAR(120) NOT NULL DEFAULT '',
	ADD COLUMN begun DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	ADD COLUMN seen DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	ADD UNIQUE KEY by_id (id);

CREATE TABLE invitations (
	id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
	-- SHA-256 of the token in the link
	token_hash BINARY(32) NOT NULL,
	email VARCHAR(190) NOT NULL DEFAULT '',
	-- null where it is to the installation alone
	course_id INT UNSIGNED NULL,
	role ENUM('look', 'work', 'manage') NULL,
	keeper TINYINT UNSIGNED NOT NULL DEFAULT 0,
	-- somebody who is there already, and chooses a password anew
	person_id INT UNSIGNED NULL,
	-- null where the start command made it, for the first person
	made_by INT UNSIGNED NULL,
	made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	expires DATETIME(3) NOT NULL,
	used DATETIME(3) NULL,
	UNIQUE KEY by_token (token_hash),
	KEY by_course (course_id),
	CONSTRAINT FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE,
	CONSTRAINT FOREIGN KEY (made_by) REFERENCES people (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

ALTER TABLE courses
	ADD COLUMN state ENUM('open', 'archived', 'binned') NOT NULL DEFAULT 'open',
	ADD COLUMN settled DATETIME(3) NULL,
	-- what the course goes by, as JSON; nothing where all is as it comes
	ADD COLUMN settings TEXT NULL,
	ADD COLUMN made DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3);
