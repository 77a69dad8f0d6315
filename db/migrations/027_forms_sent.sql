-- forms of a quiz can be sent as quizzes that are fixed
ALTER TABLE dispatches
	ADD COLUMN forms_id INT UNSIGNED NULL AFTER selection_id,
	ADD CONSTRAINT FOREIGN KEY (forms_id) REFERENCES quiz_forms (id) ON DELETE SET NULL;
ALTER TABLE loss_tables
	ADD COLUMN forms_id INT UNSIGNED NULL AFTER selection_id,
	ADD CONSTRAINT FOREIGN KEY (forms_id) REFERENCES quiz_forms (id) ON DELETE CASCADE;
