-- depends: 0002_outlook
-- A state is made of parts, each kept once however many states share it: a change of the load writes the load alone.
-- Tracks belong to a tour and go with it. Nothing of one owner can hang on what is another's: every key that leads from
-- one table to another carries the owner, and each row is seen by its owner only.

ALTER TABLE tour       ADD UNIQUE (owner_id, id);
ALTER TABLE tour_state ADD UNIQUE (owner_id, tour_id, id);

-- The tracks, which until now stayed when their tour went.
ALTER TABLE track ADD COLUMN tour_id uuid;
UPDATE track SET tour_id = state.tour_id FROM tour_state AS state WHERE state.track_id = track.id;
DELETE FROM track WHERE tour_id IS NULL;
ALTER TABLE track ALTER COLUMN tour_id SET NOT NULL;
ALTER TABLE track ADD UNIQUE (owner_id, tour_id, id);
ALTER TABLE track ADD FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE;
CREATE INDEX track_by_tour ON track (tour_id);

-- Parts: `name` says which, `digest` what is in it, `body` holds the fields of the document that belong to it.
CREATE TABLE tour_part (
    id       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    owner_id bigint NOT NULL REFERENCES owner,
    tour_id  uuid   NOT NULL,
    name     text   NOT NULL,
    digest   text   NOT NULL,
    body     jsonb  NOT NULL,
    UNIQUE (tour_id, name, digest),
    UNIQUE (owner_id, tour_id, id),
    FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE
);

CREATE TABLE state_part (
    owner_id bigint NOT NULL,
    tour_id  uuid   NOT NULL,
    state_id bigint NOT NULL,
    part_id  bigint NOT NULL,
    PRIMARY KEY (state_id, part_id),
    FOREIGN KEY (owner_id, tour_id, state_id) REFERENCES tour_state (owner_id, tour_id, id) ON DELETE CASCADE,
    FOREIGN KEY (owner_id, tour_id, part_id)  REFERENCES tour_part  (owner_id, tour_id, id) ON DELETE CASCADE
);
CREATE INDEX state_part_by_part ON state_part (part_id);

-- Which state each revision showed: what a writer has seen who names a revision.
CREATE TABLE tour_step (
    owner_id bigint      NOT NULL,
    tour_id  uuid        NOT NULL,
    revision integer     NOT NULL,
    state_id bigint      NOT NULL,
    made_at  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (tour_id, revision),
    FOREIGN KEY (owner_id, tour_id, state_id) REFERENCES tour_state (owner_id, tour_id, id) ON DELETE CASCADE
);
CREATE INDEX tour_step_by_state ON tour_step (state_id);
INSERT INTO tour_step (owner_id, tour_id, revision, state_id)
SELECT owner_id, id, revision, state_id FROM tour WHERE state_id IS NOT NULL;

-- States: the version of their document, and their sheet in parts.
ALTER TABLE tour_state ADD COLUMN version integer NOT NULL DEFAULT 1;
ALTER TABLE tour_state ALTER COLUMN version DROP DEFAULT;

WITH split AS (
    SELECT state.owner_id, state.tour_id, state.id AS state_id, field.key, field.value,
           CASE WHEN field.key IN ('road', 'rig', 'kit', 'load') THEN field.key
                WHEN field.key IN ('variants', 'kept_loads')     THEN 'kept'
                ELSE 'head' END AS name
      FROM tour_state AS state, jsonb_each(state.sheet) AS field
), part AS (
    SELECT owner_id, tour_id, state_id, name, jsonb_object_agg(key, value) AS body
      FROM split
     GROUP BY owner_id, tour_id, state_id, name
), kept AS (
    INSERT INTO tour_part (owner_id, tour_id, name, digest, body)
    SELECT DISTINCT owner_id, tour_id, name, md5(body::text), body FROM part
    RETURNING id, tour_id, name, digest
)
INSERT INTO state_part (owner_id, tour_id, state_id, part_id)
SELECT part.owner_id, part.tour_id, part.state_id, kept.id
  FROM part
  JOIN kept ON kept.tour_id = part.tour_id AND kept.name = part.name AND kept.digest = md5(part.body::text);

ALTER TABLE tour_state DROP COLUMN sheet;

-- Keys that carry the owner, in place of those that did not.
ALTER TABLE tour_state DROP CONSTRAINT tour_state_tour_id_fkey;
ALTER TABLE tour_state DROP CONSTRAINT tour_state_parent_id_fkey;
ALTER TABLE tour_state DROP CONSTRAINT tour_state_track_id_fkey;
ALTER TABLE tour       DROP CONSTRAINT tour_state_id_fkey;
ALTER TABLE outlook    DROP CONSTRAINT outlook_tour_id_fkey;
ALTER TABLE tour_state ADD FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE;
ALTER TABLE tour_state ADD FOREIGN KEY (owner_id, tour_id, parent_id)
                           REFERENCES tour_state (owner_id, tour_id, id) ON DELETE CASCADE;
ALTER TABLE tour_state ADD FOREIGN KEY (owner_id, tour_id, track_id) REFERENCES track (owner_id, tour_id, id);
ALTER TABLE tour       ADD FOREIGN KEY (owner_id, id, state_id) REFERENCES tour_state (owner_id, tour_id, id);
ALTER TABLE outlook    ADD FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE;
CREATE INDEX tour_state_by_track ON tour_state (track_id);

-- Each row is seen by its owner, who is named for the length of a transaction; without a name nothing is seen.
CREATE FUNCTION acting_owner() RETURNS bigint LANGUAGE sql STABLE
    RETURN nullif(current_setting('omnifer.owner_id', true), '')::bigint;

CREATE POLICY own ON tour       USING (owner_id = acting_owner());
CREATE POLICY own ON tour_state USING (owner_id = acting_owner());
CREATE POLICY own ON tour_part  USING (owner_id = acting_owner());
CREATE POLICY own ON state_part USING (owner_id = acting_owner());
CREATE POLICY own ON tour_step  USING (owner_id = acting_owner());
CREATE POLICY own ON track      USING (owner_id = acting_owner());
CREATE POLICY own ON outlook    USING (owner_id = acting_owner());

ALTER TABLE tour       ENABLE ROW LEVEL SECURITY;
ALTER TABLE tour       FORCE  ROW LEVEL SECURITY;
ALTER TABLE tour_state ENABLE ROW LEVEL SECURITY;
ALTER TABLE tour_state FORCE  ROW LEVEL SECURITY;
ALTER TABLE tour_part  ENABLE ROW LEVEL SECURITY;
ALTER TABLE tour_part  FORCE  ROW LEVEL SECURITY;
ALTER TABLE state_part ENABLE ROW LEVEL SECURITY;
ALTER TABLE state_part FORCE  ROW LEVEL SECURITY;
ALTER TABLE tour_step  ENABLE ROW LEVEL SECURITY;
ALTER TABLE tour_step  FORCE  ROW LEVEL SECURITY;
ALTER TABLE track      ENABLE ROW LEVEL SECURITY;
ALTER TABLE track      FORCE  ROW LEVEL SECURITY;
ALTER TABLE outlook    ENABLE ROW LEVEL SECURITY;
ALTER TABLE outlook    FORCE  ROW LEVEL SECURITY;
