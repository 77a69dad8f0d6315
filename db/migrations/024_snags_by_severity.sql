-- The snags of a question with how bad they are, read from the index alone: counting a course is mostly that.
ALTER TABLE snags
	ADD KEY by_question_severity (question_id, severity),
	DROP KEY by_question;
