-- name: right_on^
-- Whose a tour is in which this rider is a member, and whether the member rides.
SELECT member.owner_id, member.rides FROM member WHERE member.tour_id = :tour_id AND member.rider_id = :rider_id;

-- name: tours_along
-- Tours of others that this rider is a member of.
SELECT tour.id, tour.revision, tour.changed_at,
       part.body ->> 'name'       AS name,
       part.body ->> 'start_date' AS start_date,
       member.invited_by          AS shared_by
  FROM member
  JOIN tour               ON tour.id = member.tour_id AND tour.removed_at IS NULL
  JOIN state_part         ON state_part.state_id = tour.state_id
  JOIN tour_part  AS part ON part.id = state_part.part_id AND part.name = 'head'
 WHERE member.rider_id = :rider_id
 ORDER BY tour.changed_at DESC, tour.id;

-- name: members
-- The owner sees all members, a member sees itself.
SELECT id, known_as, invited_by, rides, joined_at FROM member WHERE tour_id = :tour_id ORDER BY joined_at, id;

-- name: remove_member!
DELETE FROM member WHERE tour_id = :tour_id AND id = :member_id;

-- name: leave_tour!
DELETE FROM member WHERE tour_id = :tour_id AND rider_id = :rider_id;

-- name: self_on$
SELECT is_rider FROM self WHERE tour_id = :tour_id AND rider_id = :rider_id;

-- name: set_self!
INSERT INTO self (owner_id, tour_id, rider_id, is_rider) VALUES (:owner_id, :tour_id, :rider_id, :is_rider)
    ON CONFLICT (tour_id, rider_id) DO UPDATE SET is_rider = excluded.is_rider;

-- name: forget_self!
DELETE FROM self WHERE tour_id = :tour_id AND rider_id = :rider_id;

-- name: invitations
SELECT id, rides, told_to, until FROM invitation WHERE tour_id = :tour_id AND until > now() ORDER BY until, id;

-- name: forget_invitations!
DELETE FROM invitation WHERE tour_id = :tour_id AND until < now();

-- name: invite!
INSERT INTO invitation (digest, owner_id, tour_id, rides, told_to, invited_by, until)
VALUES (:digest, :owner_id, :tour_id, :rides, :told_to, :invited_by, now() + make_interval(days => :days));

-- name: revoke_invitation!
DELETE FROM invitation WHERE tour_id = :tour_id AND id = :invitation_id;

-- name: invitation_known^
-- The invitation that is known by its secret, held until the end of the transaction.
SELECT owner_id, tour_id, rides, invited_by FROM invitation WHERE digest = :digest AND until > now() FOR UPDATE;

-- name: join!
INSERT INTO member (owner_id, tour_id, rider_id, rides, known_as, invited_by)
VALUES (:owner_id, :tour_id, :rider_id, :rides, :known_as, :invited_by);

-- name: use_invitation!
DELETE FROM invitation WHERE digest = :digest;

-- name: be_here!
-- Written where it is news only: most askers were there a moment ago, in the same view.
INSERT INTO presence (owner_id, tour_id, rider_id, known_as, is_rider, view)
SELECT :owner_id, :tour_id, account.owner_id, account.address,
       (SELECT is_rider FROM self WHERE self.tour_id = :tour_id AND self.rider_id = :rider_id), :view
  FROM account WHERE account.owner_id = :rider_id
    ON CONFLICT (tour_id, rider_id) DO UPDATE
       SET view = excluded.view, is_rider = excluded.is_rider, known_as = excluded.known_as, at = clock_timestamp()
     WHERE presence.view <> excluded.view OR presence.is_rider IS DISTINCT FROM excluded.is_rider
        OR presence.at < now() - make_interval(secs => :news_s);

-- name: others_here
SELECT known_as, is_rider, view FROM presence
 WHERE tour_id = :tour_id AND rider_id <> :rider_id AND at > now() - make_interval(secs => :gone_s) ORDER BY known_as;
