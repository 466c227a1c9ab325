-- name: act_as!
-- For the length of a transaction only rows of this owner are seen.
SELECT set_config('omnifer.owner_id', CAST(:owner_id AS text), true);

-- name: owner_named$
SELECT id FROM owner WHERE name = :name;

-- name: count_tours$
SELECT count(*) FROM tour WHERE owner_id = :owner_id AND removed_at IS NULL;

-- name: list_tours
SELECT tour.id, tour.revision, tour.changed_at,
       part.body ->> 'name'       AS name,
       part.body ->> 'start_date' AS start_date
  FROM tour
  JOIN state_part         ON state_part.state_id = tour.state_id
  JOIN tour_part  AS part ON part.id = state_part.part_id AND part.name = 'head'
 WHERE tour.owner_id = :owner_id AND (tour.removed_at IS NOT NULL) = :removed
 ORDER BY tour.changed_at DESC, tour.id;

-- name: read_tour^
-- The state that a revision showed, the newest where none is named. A redo leads to the newest child of the state.
SELECT tour.id, step.revision, tour.changed_at, state.id AS state_id, state.track_id, state.version, state.what,
       state_digest(state.id) AS digest,
       track_digest(state.id) AS track_digest,
       state.parent_id IS NOT NULL AS can_undo,
       EXISTS (SELECT 1 FROM tour_state AS child WHERE child.parent_id = state.id) AS can_redo,
       (SELECT CAST(jsonb_object_agg(part.name, part.body) AS text)
          FROM state_part
          JOIN tour_part AS part ON part.id = state_part.part_id
         WHERE state_part.state_id = state.id) AS parts
  FROM tour
  JOIN tour_step  AS step  ON step.tour_id = tour.id AND step.revision = coalesce(CAST(:revision AS integer), tour.revision)
  JOIN tour_state AS state ON state.id = step.state_id
 WHERE tour.id = :tour_id AND tour.owner_id = :owner_id AND tour.removed_at IS NULL;

-- name: revision$
SELECT revision FROM tour WHERE id = :tour_id AND owner_id = :owner_id AND removed_at IS NULL;

-- name: mark^
SELECT revision, changed_at FROM tour WHERE id = :tour_id AND owner_id = :owner_id AND removed_at IS NULL;

-- name: read_track$
SELECT points FROM track WHERE id = :track_id AND owner_id = :owner_id;

-- name: add_track$
INSERT INTO track (owner_id, tour_id, points) VALUES (:owner_id, :tour_id, :points) RETURNING id;

-- name: add_tour$
INSERT INTO tour (owner_id) VALUES (:owner_id) RETURNING id;

-- name: add_state$
INSERT INTO tour_state (owner_id, tour_id, parent_id, track_id, what, version)
VALUES (:owner_id, :tour_id, :parent_id, :track_id, :what, :version)
RETURNING id;

-- name: add_part!
-- A part that an earlier state has already is shared with it.
WITH given AS (
    SELECT CAST(:body AS jsonb) AS body, md5(CAST(:body AS jsonb)::text) AS digest
), added AS (
    INSERT INTO tour_part (owner_id, tour_id, name, digest, body)
    SELECT :owner_id, :tour_id, :name, digest, body FROM given
        ON CONFLICT (tour_id, name, digest) DO NOTHING
    RETURNING id
), part AS (
    SELECT id FROM added
     UNION
    SELECT tour_part.id FROM tour_part, given
     WHERE tour_part.tour_id = :tour_id AND tour_part.name = :name AND tour_part.digest = given.digest
)
INSERT INTO state_part (owner_id, tour_id, state_id, part_id)
SELECT :owner_id, :tour_id, :state_id, id FROM part;

-- name: share_parts
-- Parts that a state has as its parent had them; gives their names. What an older version wrote is not shared.
WITH part AS (
    SELECT part.id, part.name
      FROM state_part AS had
      JOIN tour_part  AS part   ON part.id = had.part_id
      JOIN tour_state AS parent ON parent.id = had.state_id AND parent.version = :version
     WHERE had.state_id = :parent_id AND part.name = ANY(:names)
), shared AS (
    INSERT INTO state_part (owner_id, tour_id, state_id, part_id) SELECT :owner_id, :tour_id, :state_id, id FROM part
)
SELECT name FROM part;

-- name: lock_tour^
-- Locks the row: of two writers on one revision the second sees the first one's number.
SELECT revision, state_id FROM tour WHERE id = :tour_id AND owner_id = :owner_id AND removed_at IS NULL FOR UPDATE;

-- name: track_of$
SELECT track_id FROM tour_state WHERE id = :state_id;

-- name: move_to_state^
WITH moved AS (
    UPDATE tour SET state_id = :state_id, revision = revision + 1, changed_at = now() WHERE id = :tour_id
    RETURNING owner_id, id, revision, changed_at
), noted AS (
    INSERT INTO tour_step (owner_id, tour_id, revision, state_id) SELECT owner_id, id, revision, :state_id FROM moved
)
SELECT revision, changed_at, state_digest(:state_id) AS digest, track_digest(:state_id) AS track_digest FROM moved;

-- name: set_first_state^
WITH begun AS (
    UPDATE tour SET state_id = :state_id WHERE id = :tour_id RETURNING owner_id, id, revision, changed_at
), noted AS (
    INSERT INTO tour_step (owner_id, tour_id, revision, state_id) SELECT owner_id, id, revision, :state_id FROM begun
)
SELECT revision, changed_at, state_digest(:state_id) AS digest, track_digest(:state_id) AS track_digest FROM begun;

-- name: undo_target$
SELECT parent_id FROM tour_state WHERE id = :state_id;

-- name: redo_target$
SELECT id FROM tour_state WHERE parent_id = :state_id ORDER BY id DESC LIMIT 1;

-- name: forget_branches!
-- A change after an undo ends what was undone: nothing leads there any more.
DELETE FROM tour_state WHERE parent_id = :state_id;

-- name: forget_unused_parts!
DELETE FROM tour_part
 WHERE tour_id = :tour_id
   AND NOT EXISTS (SELECT 1 FROM state_part WHERE state_part.part_id = tour_part.id);

-- name: forget_unused_tracks!
DELETE FROM track
 WHERE tour_id = :tour_id
   AND NOT EXISTS (SELECT 1 FROM tour_state WHERE tour_state.track_id = track.id);

-- name: delete_tour$
DELETE FROM tour WHERE id = :tour_id AND owner_id = :owner_id RETURNING id;

-- name: remove_tour$
UPDATE tour SET removed_at = now() WHERE id = :tour_id AND owner_id = :owner_id AND removed_at IS NULL RETURNING id;

-- name: restore_tour$
UPDATE tour SET removed_at = NULL WHERE id = :tour_id AND owner_id = :owner_id AND removed_at IS NOT NULL RETURNING id;

-- name: owners
SELECT id FROM owner ORDER BY id;

-- name: forget_removed_tours!
DELETE FROM tour WHERE owner_id = :owner_id AND removed_at < now() - make_interval(days => :days);

-- name: keep_outlook!
INSERT INTO outlook (tour_id, owner_id, day, told) VALUES (:tour_id, :owner_id, :day, :told)
    ON CONFLICT (tour_id, day) DO UPDATE SET told = excluded.told, told_at = now();

-- name: read_outlook^
SELECT told, told_at FROM outlook WHERE tour_id = :tour_id AND owner_id = :owner_id AND day = :day;

-- name: read_packed
SELECT carrier_id, thing_id FROM packed WHERE tour_id = :tour_id AND owner_id = :owner_id ORDER BY ticked_at, carrier_id, thing_id;

-- name: tick_packed!
INSERT INTO packed (tour_id, owner_id, carrier_id, thing_id)
    SELECT id, owner_id, :carrier_id, :thing_id FROM tour WHERE id = :tour_id AND owner_id = :owner_id
    ON CONFLICT DO NOTHING;

-- name: untick_packed!
DELETE FROM packed WHERE tour_id = :tour_id AND owner_id = :owner_id AND carrier_id = :carrier_id AND thing_id = :thing_id;

-- name: pack_anew!
DELETE FROM packed WHERE tour_id = :tour_id AND owner_id = :owner_id;
