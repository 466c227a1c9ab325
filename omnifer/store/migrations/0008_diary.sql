-- depends: 0007_errands
-- What riders note while they pack, weigh, ride and unpack. Entries are added and never changed: what was wrong is undone by
-- another entry. They belong to a tour and are no part of its document or of its undo.
CREATE TABLE diary_entry (
    seq            bigint      GENERATED ALWAYS AS IDENTITY,
    owner_id       bigint      NOT NULL REFERENCES owner,
    tour_id        uuid        NOT NULL REFERENCES tour ON DELETE CASCADE,
    id             uuid        NOT NULL,
    author         text        NOT NULL,
    says_otherwise uuid,
    body           jsonb       NOT NULL,
    received_at    timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (tour_id, id)
);
CREATE UNIQUE INDEX diary_in_order ON diary_entry (tour_id, seq);

CREATE TABLE diary_picture (
    owner_id bigint NOT NULL REFERENCES owner,
    tour_id  uuid   NOT NULL,
    entry_id uuid   NOT NULL,
    image    bytea  NOT NULL,
    PRIMARY KEY (tour_id, entry_id),
    FOREIGN KEY (tour_id, entry_id) REFERENCES diary_entry (tour_id, id) ON DELETE CASCADE
);

-- An entry goes only with its tour: the trigger of a foreign key is then one trigger further out.
CREATE FUNCTION diary_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    IF TG_OP = 'DELETE' AND pg_trigger_depth() > 1 THEN
        RETURN OLD;
    END IF;
    RAISE EXCEPTION 'entries of a diary are neither changed nor taken away';
END
$$;
CREATE TRIGGER diary_stays BEFORE UPDATE OR DELETE ON diary_entry FOR EACH ROW EXECUTE FUNCTION diary_stays();

CREATE POLICY own ON diary_entry   USING (owner_id = acting_owner());
CREATE POLICY own ON diary_picture USING (owner_id = acting_owner());

ALTER TABLE diary_entry   ENABLE ROW LEVEL SECURITY;
ALTER TABLE diary_entry   FORCE  ROW LEVEL SECURITY;
ALTER TABLE diary_picture ENABLE ROW LEVEL SECURITY;
ALTER TABLE diary_picture FORCE  ROW LEVEL SECURITY;
