-- a file in a course by its content, so that the same one is known again
ALTER TABLE loads ADD KEY by_file (course_id, file_id);
