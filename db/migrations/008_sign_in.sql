-- Tries to sign in, by the SHA-256 of what they are counted by: an address and who is meant, an address, or who is meant,
-- whether there is such a person or not.
CREATE TABLE sign_in_tries (
	counted_by BINARY(32) NOT NULL PRIMARY KEY,
	wrong INT UNSIGNED NOT NULL DEFAULT 0,
	wait_until DATETIME(3) NULL,
	last DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	KEY by_last (last)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4;

ALTER TABLE people DROP COLUMN wrong_passwords, DROP COLUMN wait_until;
