-- The words by which questions are held against each other now tell labels, blanks, numbers and pictures apart: they are
-- worked out anew when the next load is held against a course.
UPDATE questions SET word_hashes = NULL;

-- forty shares of credit with all their decimals are longer
ALTER TABLE staged_questions MODIFY COLUMN part_credits TEXT NOT NULL DEFAULT '[]';
