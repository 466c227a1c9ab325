-- depends: 0006_library
-- What takes long is asked for here and done by workers; what a state means is kept, once worked out.

-- A track is known by its points, wherever it was brought.
ALTER TABLE track ADD COLUMN digest text GENERATED ALWAYS AS (md5(points)) STORED;

-- What a state of a tour means, by what the state holds and by the rules that worked it out. Lost with a crash and in no
-- backup: it is worked out again.
CREATE UNLOGGED TABLE assessed (
    owner_id bigint      NOT NULL REFERENCES owner,
    digest   text        NOT NULL,
    packed   bytea       NOT NULL,
    made_at  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (owner_id, digest)
);

-- An errand: what is asked, and by which web server (the key of an advisory lock that dies with it). It goes when nobody
-- waits for it any more.
CREATE TABLE errand (
    id       bigint      GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    owner_id bigint      NOT NULL REFERENCES owner,
    asker    integer     NOT NULL,
    kind     text        NOT NULL,
    tour_id  text        NOT NULL,
    asked    jsonb       NOT NULL,
    granted  boolean     NOT NULL DEFAULT false,
    made_at  timestamptz NOT NULL DEFAULT now(),
    UNIQUE (owner_id, id)
);
CREATE TABLE errand_file (
    owner_id  bigint  NOT NULL,
    errand_id bigint  NOT NULL,
    number    integer NOT NULL,
    content   bytea   NOT NULL,
    PRIMARY KEY (errand_id, number),
    FOREIGN KEY (owner_id, errand_id) REFERENCES errand (owner_id, id) ON DELETE CASCADE
);
CREATE TABLE errand_news (
    owner_id  bigint  NOT NULL,
    errand_id bigint  NOT NULL,
    number    integer NOT NULL,
    event     text    NOT NULL,
    body      text    NOT NULL,
    PRIMARY KEY (errand_id, number),
    FOREIGN KEY (owner_id, errand_id) REFERENCES errand (owner_id, id) ON DELETE CASCADE
);

CREATE POLICY own ON assessed    USING (owner_id = acting_owner());
CREATE POLICY own ON errand      USING (owner_id = acting_owner());
CREATE POLICY own ON errand_file USING (owner_id = acting_owner());
CREATE POLICY own ON errand_news USING (owner_id = acting_owner());

ALTER TABLE assessed    ENABLE ROW LEVEL SECURITY;
ALTER TABLE assessed    FORCE  ROW LEVEL SECURITY;
ALTER TABLE errand      ENABLE ROW LEVEL SECURITY;
ALTER TABLE errand      FORCE  ROW LEVEL SECURITY;
ALTER TABLE errand_file ENABLE ROW LEVEL SECURITY;
ALTER TABLE errand_file FORCE  ROW LEVEL SECURITY;
ALTER TABLE errand_news ENABLE ROW LEVEL SECURITY;
ALTER TABLE errand_news FORCE  ROW LEVEL SECURITY;

-- What a state holds, in one word: the same for the same sheet and track, whichever tour and owner they belong to.
CREATE FUNCTION state_digest(wanted bigint) RETURNS text LANGUAGE sql STABLE
BEGIN ATOMIC
    SELECT md5(state.version || coalesce(track.digest, '') || string_agg(part.name || part.digest, ',' ORDER BY part.name))
      FROM tour_state AS state
      LEFT JOIN track ON track.id = state.track_id
      JOIN state_part        ON state_part.state_id = state.id
      JOIN tour_part AS part ON part.id = state_part.part_id
     WHERE state.id = wanted
     GROUP BY state.version, track.digest;
END;

CREATE FUNCTION track_digest(wanted bigint) RETURNS text LANGUAGE sql STABLE
BEGIN ATOMIC
    SELECT track.digest FROM tour_state AS state JOIN track ON track.id = state.track_id WHERE state.id = wanted;
END;

-- Whether anybody in this database holds an advisory lock.
CREATE FUNCTION advisory_held(class integer, number integer) RETURNS boolean LANGUAGE sql VOLATILE
BEGIN ATOMIC
    SELECT EXISTS (
        SELECT 1 FROM pg_locks
         WHERE locktype = 'advisory' AND granted AND objsubid = 2
           AND classid = CAST(CAST(class AS bigint) AS oid) AND objid = CAST(CAST(number AS bigint) AS oid)
           AND pg_locks.database = (SELECT pg_database.oid FROM pg_database WHERE pg_database.datname = current_database()));
END;
