-- name: read_assessed$
SELECT packed FROM assessed WHERE owner_id = :owner_id AND digest = :digest;

-- name: keep_assessed!
INSERT INTO assessed (owner_id, digest, packed) VALUES (:owner_id, :digest, :packed) ON CONFLICT DO NOTHING;

-- name: forget_assessed!
DELETE FROM assessed
 WHERE owner_id = :owner_id
   AND digest IN (SELECT digest FROM assessed WHERE owner_id = :owner_id ORDER BY made_at DESC OFFSET :most);
