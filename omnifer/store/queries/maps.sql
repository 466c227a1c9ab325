-- name: read_told_map$
SELECT packed FROM told_map WHERE owner_id = :owner_id AND digest = :digest AND told_at > now() - make_interval(days => :days);

-- name: keep_told_map!
INSERT INTO told_map (owner_id, digest, packed) VALUES (:owner_id, :digest, :packed)
    ON CONFLICT (owner_id, digest) DO UPDATE SET packed = excluded.packed, told_at = now();

-- name: forget_told_maps!
DELETE FROM told_map WHERE owner_id = :owner_id AND told_at < now() - make_interval(days => :days);
