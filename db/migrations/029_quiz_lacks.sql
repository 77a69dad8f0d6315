-- what of a quiz of a load had no place in the course when it was taken in, in sentences for the receipt
ALTER TABLE quizzes ADD COLUMN lacks TEXT NULL AFTER load_id;
