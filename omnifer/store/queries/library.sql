-- name: library_page
SELECT owned.id, owned.version, owned.document, owned.body, (picture.owned_id IS NOT NULL) AS has_picture
  FROM owned
  LEFT JOIN owned_picture AS picture ON picture.owned_id = owned.id
 WHERE owned.owner_id = :owner_id AND owned.removed_at IS NULL
   AND (:find = '' OR owned.sought LIKE '%%' || :find || '%%')
   AND (:kit = '' OR owned.kit = :kit)
 ORDER BY owned.id = ANY(CAST(:last AS uuid[])), lower(owned.name), owned.id
 LIMIT :most OFFSET :first;

-- name: library_json^
-- The same page as text that can be sent as it is, and whether all of it is of today's version.
WITH found AS (
    SELECT id, lower(name) AS by_name, id = ANY(CAST(:last AS uuid[])) AS behind
      FROM owned
     WHERE owner_id = :owner_id AND removed_at IS NULL
       AND (:find = '' OR sought LIKE '%%' || :find || '%%')
       AND (:kit = '' OR kit = :kit)
), page AS (
    SELECT * FROM found ORDER BY behind, by_name, id LIMIT :most OFFSET :first
)
SELECT coalesce(json_agg(json_build_object(
           'id', owned.id, 'version', owned.version, 'thing', owned.body, 'has_picture', picture.owned_id IS NOT NULL,
           'tours', coalesce(CAST(:tours AS jsonb) -> CAST(owned.id AS text), '[]')
       ) ORDER BY page.behind, page.by_name, page.id)::text, '[]') AS things,
       coalesce(bool_and(owned.document = :document), true) AS of_today,
       (SELECT count(*) FROM found) AS total
  FROM page
  JOIN owned ON owned.id = page.id
  LEFT JOIN owned_picture AS picture ON picture.owned_id = page.id;

-- name: library_size$
SELECT count(*) FROM owned
 WHERE owner_id = :owner_id AND removed_at IS NULL
   AND (:find = '' OR sought LIKE '%%' || :find || '%%') AND (:kit = '' OR kit = :kit);

-- name: library_kits
SELECT kit AS name, count(*) AS things,
       coalesce(sum(mass_kg), 0) AS mass_kg
  FROM owned WHERE owner_id = :owner_id AND removed_at IS NULL AND kit <> '' GROUP BY kit ORDER BY kit;

-- name: library_named
SELECT id, version, document, body, false AS has_picture FROM owned
 WHERE owner_id = :owner_id AND removed_at IS NULL AND lower(name) = ANY(:names) ORDER BY id;

-- name: library_thing^
SELECT owned.id, owned.version, owned.document, owned.body, (picture.owned_id IS NOT NULL) AS has_picture
  FROM owned
  LEFT JOIN owned_picture AS picture ON picture.owned_id = owned.id
 WHERE owned.owner_id = :owner_id AND owned.id = :owned_id AND owned.removed_at IS NULL;

-- name: known_owned
SELECT id FROM owned WHERE owner_id = :owner_id AND removed_at IS NULL AND CAST(id AS text) = ANY(:ids);

-- name: add_owned$
INSERT INTO owned (owner_id, name, kit, sought, body, document)
VALUES (:owner_id, :name, :kit, :sought, CAST(:body AS jsonb), :document) RETURNING id;

-- name: change_owned$
UPDATE owned SET version = version + 1, changed_at = now(), name = :name, kit = :kit, sought = :sought,
                 body = CAST(:body AS jsonb), document = :document
 WHERE owner_id = :owner_id AND id = :owned_id AND removed_at IS NULL
   AND version = coalesce(CAST(:version AS integer), version) RETURNING version;

-- name: remove_owned$
UPDATE owned SET removed_at = now()
 WHERE owner_id = :owner_id AND id = :owned_id AND removed_at IS NULL AND version = :version RETURNING id;

-- name: restore_owned$
UPDATE owned SET removed_at = NULL WHERE owner_id = :owner_id AND id = :owned_id AND removed_at IS NOT NULL RETURNING id;

-- name: forget_removed_things!
DELETE FROM owned WHERE owner_id = :owner_id AND removed_at < now() - make_interval(days => :days);

-- name: keep_picture!
INSERT INTO owned_picture (owner_id, owned_id, image) VALUES (:owner_id, :owned_id, :image)
    ON CONFLICT (owned_id) DO UPDATE SET image = excluded.image;

-- name: read_picture$
SELECT image FROM owned_picture WHERE owner_id = :owner_id AND owned_id = :owned_id;

-- name: remove_picture!
DELETE FROM owned_picture WHERE owner_id = :owner_id AND owned_id = :owned_id;

-- name: open_choices
-- Which open tours chose which things, by name.
SELECT DISTINCT head.body ->> 'name' AS name, thing.value ->> 'library_id' AS owned_id
  FROM tour
  JOIN state_part AS of_kit  ON of_kit.state_id = tour.state_id
  JOIN tour_part  AS kit     ON kit.id = of_kit.part_id AND kit.name = 'kit'
  JOIN state_part AS of_head ON of_head.state_id = tour.state_id
  JOIN tour_part  AS head    ON head.id = of_head.part_id AND head.name = 'head'
  CROSS JOIN LATERAL jsonb_array_elements(kit.body -> 'kit') AS thing
 WHERE tour.owner_id = :owner_id AND tour.removed_at IS NULL AND thing.value ->> 'library_id' IS NOT NULL
   AND NOT coalesce((head.body ->> 'over')::boolean, false)
 ORDER BY name;

-- name: tours_with
-- Tours whose kit names one of these things as it stands now.
SELECT DISTINCT tour.id, head.body ->> 'name' AS name, coalesce((head.body ->> 'over')::boolean, false) AS over,
       thing.value ->> 'library_id' AS owned_id
  FROM tour
  JOIN state_part AS of_kit  ON of_kit.state_id = tour.state_id
  JOIN tour_part  AS kit     ON kit.id = of_kit.part_id AND kit.name = 'kit'
  JOIN state_part AS of_head ON of_head.state_id = tour.state_id
  JOIN tour_part  AS head    ON head.id = of_head.part_id AND head.name = 'head'
  CROSS JOIN LATERAL jsonb_array_elements(kit.body -> 'kit') AS thing
 WHERE tour.owner_id = :owner_id AND tour.removed_at IS NULL AND thing.value ->> 'library_id' = ANY(:owned_ids);
