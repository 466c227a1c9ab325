-- depends: 0010_accounts
-- Who rides along on a tour, or reads along. All rows of a tour stay its owner's; who is a member sees them, and who rides changes them.

CREATE TABLE member (
    id        uuid        NOT NULL UNIQUE DEFAULT gen_random_uuid(),
    owner_id  bigint      NOT NULL, -- of the tour
    tour_id   uuid        NOT NULL,
    rider_id  bigint      NOT NULL REFERENCES owner,
    rides     boolean     NOT NULL,
    known_as  text        NOT NULL, -- what the owner is told of the member
    invited_by text       NOT NULL, -- and the member of the owner
    joined_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (tour_id, rider_id),
    FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE,
    CHECK (rider_id <> owner_id)
);
CREATE INDEX member_by_rider ON member (rider_id);

-- The link holds a secret, the row its digest; it is good once.
CREATE TABLE invitation (
    digest     text        PRIMARY KEY,
    id         uuid        NOT NULL UNIQUE DEFAULT gen_random_uuid(),
    owner_id   bigint      NOT NULL,
    tour_id    uuid        NOT NULL,
    rides      boolean     NOT NULL,
    told_to    text        NOT NULL, -- empty where the link is handed on by its owner
    invited_by text        NOT NULL,
    until      timestamptz NOT NULL,
    FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE
);
CREATE INDEX invitation_by_tour ON invitation (tour_id);

-- Which rider of the tour an account is.
CREATE TABLE self (
    owner_id  bigint NOT NULL,
    tour_id   uuid   NOT NULL,
    rider_id  bigint NOT NULL REFERENCES owner,
    is_rider  text   NOT NULL,
    PRIMARY KEY (tour_id, rider_id),
    FOREIGN KEY (owner_id, tour_id) REFERENCES tour (owner_id, id) ON DELETE CASCADE
);

-- Who looks at a tour just now, and at which view of it. Lost with a crash: each says it again in a moment.
CREATE UNLOGGED TABLE presence (
    owner_id  bigint      NOT NULL REFERENCES owner,
    tour_id   uuid        NOT NULL,
    rider_id  bigint      NOT NULL REFERENCES owner,
    known_as  text        NOT NULL,
    is_rider  text,
    view      text        NOT NULL,
    at        timestamptz NOT NULL DEFAULT clock_timestamp(),
    PRIMARY KEY (tour_id, rider_id)
);

CREATE FUNCTION reads_along(wanted uuid) RETURNS boolean LANGUAGE sql STABLE
    RETURN EXISTS (SELECT 1 FROM member WHERE member.tour_id = wanted AND member.rider_id = acting_owner());
CREATE FUNCTION rides_along(wanted uuid) RETURNS boolean LANGUAGE sql STABLE
    RETURN EXISTS (SELECT 1 FROM member WHERE member.tour_id = wanted AND member.rider_id = acting_owner() AND member.rides);

-- A member comes by an invitation that stands, as it says, and goes by itself or by the owner; it is never changed.
CREATE POLICY theirs ON member FOR SELECT USING (rider_id = acting_owner() OR owner_id = acting_owner());
CREATE POLICY gone   ON member FOR DELETE USING (rider_id = acting_owner() OR owner_id = acting_owner());
CREATE POLICY comes  ON member FOR INSERT WITH CHECK (rider_id = acting_owner() AND EXISTS (
    SELECT 1 FROM invitation
     WHERE invitation.digest = knows() AND invitation.until > now() AND invitation.tour_id = member.tour_id
       AND invitation.owner_id = member.owner_id AND invitation.rides = member.rides));
CREATE POLICY own ON invitation USING (owner_id = acting_owner() OR digest = knows()) WITH CHECK (owner_id = acting_owner());
CREATE POLICY own ON self USING (rider_id = acting_owner())
    WITH CHECK (rider_id = acting_owner() AND (owner_id = acting_owner() OR reads_along(tour_id)));

CREATE POLICY own ON presence USING (rider_id = acting_owner() OR owner_id = acting_owner() OR reads_along(tour_id))
    WITH CHECK (rider_id = acting_owner() AND (owner_id = acting_owner() OR reads_along(tour_id)));

CREATE POLICY reads ON tour          FOR SELECT USING (reads_along(id));
CREATE POLICY reads ON tour_state    FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON tour_part     FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON state_part    FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON tour_step     FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON track         FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON packed        FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON diary_entry   FOR SELECT USING (reads_along(tour_id));
CREATE POLICY reads ON diary_picture FOR SELECT USING (reads_along(tour_id));
-- What a weather service told is kept by whoever asked it.
CREATE POLICY reads ON outlook       USING (reads_along(tour_id));

CREATE POLICY rides ON tour          FOR UPDATE USING (rides_along(id));
CREATE POLICY rides ON tour_state    USING (rides_along(tour_id));
CREATE POLICY rides ON tour_part     USING (rides_along(tour_id));
CREATE POLICY rides ON state_part    USING (rides_along(tour_id));
CREATE POLICY rides ON tour_step     USING (rides_along(tour_id));
CREATE POLICY rides ON track         USING (rides_along(tour_id));
CREATE POLICY rides ON packed        USING (rides_along(tour_id));
CREATE POLICY rides ON diary_entry   USING (rides_along(tour_id));
CREATE POLICY rides ON diary_picture USING (rides_along(tour_id));

ALTER TABLE member     ENABLE ROW LEVEL SECURITY;
ALTER TABLE member     FORCE  ROW LEVEL SECURITY;
ALTER TABLE invitation ENABLE ROW LEVEL SECURITY;
ALTER TABLE invitation FORCE  ROW LEVEL SECURITY;
ALTER TABLE self       ENABLE ROW LEVEL SECURITY;
ALTER TABLE self       FORCE  ROW LEVEL SECURITY;
ALTER TABLE presence   ENABLE ROW LEVEL SECURITY;
ALTER TABLE presence   FORCE  ROW LEVEL SECURITY;

CREATE OR REPLACE FUNCTION forget_owner(gone bigint) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
    DELETE FROM presence WHERE rider_id = gone OR owner_id = gone;
    DELETE FROM self     WHERE rider_id = gone;
    DELETE FROM member   WHERE rider_id = gone;
    DELETE FROM tour     WHERE owner_id = gone;
    DELETE FROM track    WHERE owner_id = gone;
    DELETE FROM owned    WHERE owner_id = gone;
    DELETE FROM errand   WHERE owner_id = gone;
    DELETE FROM assessed WHERE owner_id = gone;
    DELETE FROM told_map WHERE owner_id = gone;
    DELETE FROM account  WHERE owner_id = gone;
    DELETE FROM owner    WHERE id = gone;
END
$$;
