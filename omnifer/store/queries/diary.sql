-- name: lock_diary$
-- Entries of one tour come one after the other, so that whoever reads on from the last one it saw misses none.
SELECT id FROM tour WHERE id = :tour_id AND owner_id = :owner_id FOR UPDATE;

-- name: add_entry$
-- Gives the number of an entry that is new; nothing where it is there already.
INSERT INTO diary_entry (owner_id, tour_id, id, author, says_otherwise, body, received_at)
VALUES (:owner_id, :tour_id, :id, :author, :says_otherwise, CAST(:body AS jsonb), coalesce(:received_at, clock_timestamp()))
    ON CONFLICT (tour_id, id) DO NOTHING
RETURNING seq;

-- name: same_entry$
SELECT body = CAST(:body AS jsonb) FROM diary_entry WHERE tour_id = :tour_id AND owner_id = :owner_id AND id = :id;

-- name: read_diary
SELECT entry.seq, entry.id, entry.body, entry.received_at, entry.says_otherwise, picture.entry_id IS NOT NULL AS has_picture
  FROM diary_entry AS entry
  LEFT JOIN diary_picture AS picture ON picture.tour_id = entry.tour_id AND picture.entry_id = entry.id
 WHERE entry.tour_id = :tour_id AND entry.owner_id = :owner_id AND entry.seq > :after
 ORDER BY entry.seq;

-- name: last_entry$
SELECT coalesce(max(seq), 0) FROM diary_entry WHERE tour_id = :tour_id AND owner_id = :owner_id;

-- name: keep_diary_picture!
INSERT INTO diary_picture (owner_id, tour_id, entry_id, image) VALUES (:owner_id, :tour_id, :entry_id, :image)
    ON CONFLICT (tour_id, entry_id) DO NOTHING;

-- name: read_diary_picture$
SELECT image FROM diary_picture WHERE tour_id = :tour_id AND owner_id = :owner_id AND entry_id = :entry_id;
