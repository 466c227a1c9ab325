-- depends: 0004_removed
-- What is packed already: ticked by whoever packs, apart from the tour's document and its undo.
CREATE TABLE packed (
    tour_id    uuid        NOT NULL REFERENCES tour ON DELETE CASCADE,
    owner_id   bigint      NOT NULL REFERENCES owner,
    carrier_id text        NOT NULL,
    thing_id   text        NOT NULL,
    ticked_at  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (tour_id, carrier_id, thing_id)
);
