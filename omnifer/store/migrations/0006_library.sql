-- depends: 0005_packed
-- A rider's own things, each kept once. Tours hold copies that name them; `sought` is what a search looks through.
CREATE TABLE owned (
    id         uuid        PRIMARY KEY DEFAULT gen_random_uuid(),
    owner_id   bigint      NOT NULL REFERENCES owner,
    version    integer     NOT NULL DEFAULT 1,
    name       text        NOT NULL,
    kit        text        NOT NULL,
    sought     text        NOT NULL,
    body       jsonb       NOT NULL,
    mass_kg    double precision GENERATED ALWAYS AS ((body ->> 'mass_kg')::float8 * (body ->> 'count')::float8) STORED,
    document   integer     NOT NULL,
    changed_at timestamptz NOT NULL DEFAULT now(),
    removed_at timestamptz,
    UNIQUE (owner_id, id)
);
CREATE INDEX owned_by_name ON owned (owner_id, lower(name), id) WHERE removed_at IS NULL;
CREATE INDEX owned_by_kit  ON owned (owner_id, kit) WHERE removed_at IS NULL;

CREATE TABLE owned_picture (
    owner_id bigint NOT NULL,
    owned_id uuid   NOT NULL PRIMARY KEY,
    image    bytea  NOT NULL,
    FOREIGN KEY (owner_id, owned_id) REFERENCES owned (owner_id, id) ON DELETE CASCADE
);

CREATE POLICY own ON owned         USING (owner_id = acting_owner());
CREATE POLICY own ON owned_picture USING (owner_id = acting_owner());
CREATE POLICY own ON packed        USING (owner_id = acting_owner());

ALTER TABLE owned         ENABLE ROW LEVEL SECURITY;
ALTER TABLE owned         FORCE  ROW LEVEL SECURITY;
ALTER TABLE owned_picture ENABLE ROW LEVEL SECURITY;
ALTER TABLE owned_picture FORCE  ROW LEVEL SECURITY;
ALTER TABLE packed        ENABLE ROW LEVEL SECURITY;
ALTER TABLE packed        FORCE  ROW LEVEL SECURITY;
