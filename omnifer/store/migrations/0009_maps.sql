-- depends: 0008_diary
-- What a map service told of a corridor, so that it is not asked twice for the same. Lost with a crash: it is asked again.
CREATE UNLOGGED TABLE told_map (
    owner_id bigint      NOT NULL REFERENCES owner,
    digest   text        NOT NULL,
    packed   bytea       NOT NULL,
    told_at  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (owner_id, digest)
);
CREATE POLICY own ON told_map USING (owner_id = acting_owner());
ALTER TABLE told_map ENABLE ROW LEVEL SECURITY;
ALTER TABLE told_map FORCE  ROW LEVEL SECURITY;
