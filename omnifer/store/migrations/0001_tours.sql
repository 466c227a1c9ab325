-- Tours and their history. Every state of a tour is kept: undo and redo walk along them, and nothing is ever
-- overwritten. Each table carries its owner, so that accounts can come without moving data.

CREATE TABLE owner (
    id         bigint      GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name       text        NOT NULL UNIQUE,
    created_at timestamptz NOT NULL DEFAULT now()
);

-- Raw tracks are large and never change: states point at them.
CREATE TABLE track (
    id         bigint      GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    owner_id   bigint      NOT NULL REFERENCES owner,
    points     bytea       NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE tour (
    id         uuid        PRIMARY KEY DEFAULT gen_random_uuid(),
    owner_id   bigint      NOT NULL REFERENCES owner,
    revision   integer     NOT NULL DEFAULT 1,
    state_id   bigint,
    created_at timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE tour_state (
    id         bigint      GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    owner_id   bigint      NOT NULL REFERENCES owner,
    tour_id    uuid        NOT NULL REFERENCES tour ON DELETE CASCADE,
    parent_id  bigint      REFERENCES tour_state ON DELETE CASCADE,
    track_id   bigint      REFERENCES track,
    what       text        NOT NULL,
    sheet      jsonb       NOT NULL,
    made_at    timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX tour_state_by_parent ON tour_state (parent_id, id DESC);
CREATE INDEX tour_state_by_tour   ON tour_state (tour_id);
CREATE INDEX tour_by_owner        ON tour (owner_id, changed_at DESC);

ALTER TABLE tour ADD FOREIGN KEY (state_id) REFERENCES tour_state;

INSERT INTO owner (name) VALUES ('local rider');
