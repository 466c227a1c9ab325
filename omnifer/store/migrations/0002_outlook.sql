-- depends: 0001_tours
-- The last outlook told for each day of a tour: shown, marked as old, when the service is silent.
CREATE TABLE outlook (
    tour_id    uuid        NOT NULL REFERENCES tour ON DELETE CASCADE,
    owner_id   bigint      NOT NULL REFERENCES owner,
    day        date        NOT NULL,
    told       jsonb       NOT NULL,
    told_at    timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (tour_id, day)
);
