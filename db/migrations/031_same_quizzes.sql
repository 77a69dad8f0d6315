-- a quiz of a load that was in the course already, in every word the same, and was not taken in again
ALTER TABLE staged_quizzes ADD COLUMN IF NOT EXISTS same_as INT UNSIGNED NULL;
