-- notes are held against one another to the letter: of two ways to write a tag one stood for both, and nothing was said
ALTER TABLE check_notes MODIFY note TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
