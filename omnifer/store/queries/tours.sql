-- name: local_owner$
SELECT id FROM owner WHERE name = 'local rider';

-- name: count_tours$
SELECT count(*) FROM tour WHERE owner_id = :owner_id;

-- name: list_tours
SELECT tour.id, tour.revision, tour.changed_at,
       state.sheet ->> 'name'       AS name,
       state.sheet ->> 'start_date' AS start_date
  FROM tour
  JOIN tour_state AS state ON state.id = tour.state_id
 WHERE tour.owner_id = :owner_id
 ORDER BY tour.changed_at DESC;

-- name: read_tour^
-- A redo leads to the newest child of the current state.
SELECT tour.id, tour.revision, tour.changed_at, state.id AS state_id, state.track_id, state.sheet, state.what,
       state.parent_id IS NOT NULL AS can_undo,
       EXISTS (SELECT 1 FROM tour_state AS child WHERE child.parent_id = state.id) AS can_redo
  FROM tour
  JOIN tour_state AS state ON state.id = tour.state_id
 WHERE tour.id = :tour_id AND tour.owner_id = :owner_id;

-- name: read_track$
SELECT points FROM track WHERE id = :track_id AND owner_id = :owner_id;

-- name: add_track$
INSERT INTO track (owner_id, points) VALUES (:owner_id, :points) RETURNING id;

-- name: add_tour$
INSERT INTO tour (owner_id) VALUES (:owner_id) RETURNING id;

-- name: add_state$
INSERT INTO tour_state (owner_id, tour_id, parent_id, track_id, what, sheet)
VALUES (:owner_id, :tour_id, :parent_id, :track_id, :what, :sheet)
RETURNING id;

-- name: lock_tour^
-- Locks the row: of two writers on one revision the second sees the first one's number.
SELECT revision, state_id FROM tour WHERE id = :tour_id AND owner_id = :owner_id FOR UPDATE;

-- name: move_to_state!
UPDATE tour SET state_id = :state_id, revision = revision + 1, changed_at = now() WHERE id = :tour_id;

-- name: set_first_state!
UPDATE tour SET state_id = :state_id WHERE id = :tour_id;

-- name: undo_target$
SELECT parent_id FROM tour_state WHERE id = :state_id;

-- name: redo_target$
SELECT id FROM tour_state WHERE parent_id = :state_id ORDER BY id DESC LIMIT 1;

-- name: forget_state!
UPDATE tour SET state_id = NULL WHERE id = :tour_id AND owner_id = :owner_id;

-- name: delete_tour!
DELETE FROM tour WHERE id = :tour_id AND owner_id = :owner_id;

-- name: keep_outlook!
INSERT INTO outlook (tour_id, owner_id, day, told) VALUES (:tour_id, :owner_id, :day, :told)
    ON CONFLICT (tour_id, day) DO UPDATE SET told = excluded.told, told_at = now();

-- name: read_outlook^
SELECT told, told_at FROM outlook WHERE tour_id = :tour_id AND owner_id = :owner_id AND day = :day;
