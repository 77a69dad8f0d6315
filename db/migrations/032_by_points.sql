-- 018 took this index away and, as it was there when it began, did not make it anew: a list by points read the whole bank
ALTER TABLE questions ADD KEY IF NOT EXISTS by_points (bank_id, points, id);
