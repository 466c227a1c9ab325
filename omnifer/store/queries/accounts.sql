-- name: know!
-- For the length of a transaction rows are seen that are found by this.
SELECT set_config('omnifer.knows', :known, true);

-- name: account_known_as^
SELECT owner_id, address, password, made_at FROM account WHERE known_as = lower(:address);

-- name: account_of^
SELECT owner_id, address, password, made_at FROM account WHERE owner_id = :owner_id;

-- name: add_owner^
INSERT INTO owner (name) VALUES ('rider ' || gen_random_uuid()) RETURNING id;

-- name: add_account!
INSERT INTO account (owner_id, address, password) VALUES (:owner_id, :address, :password);

-- name: set_password!
UPDATE account SET password = :password WHERE owner_id = :owner_id;

-- name: begin_session^
INSERT INTO signed_in (digest, owner_id, device) VALUES (:digest, :owner_id, :device) RETURNING id;

-- name: session_of^
SELECT signed_in.id, signed_in.owner_id, signed_in.made_at, signed_in.seen_at < now() - interval '10 minutes' AS stale
  FROM signed_in WHERE digest = :digest AND seen_at > now() - make_interval(days => :days);

-- name: see_session!
UPDATE signed_in SET seen_at = now() WHERE digest = :digest;

-- name: sessions
SELECT id, device, made_at, seen_at FROM signed_in WHERE owner_id = :owner_id ORDER BY seen_at DESC, id;

-- name: end_session!
DELETE FROM signed_in WHERE owner_id = :owner_id AND id = :session_id;

-- name: end_other_sessions!
DELETE FROM signed_in WHERE owner_id = :owner_id AND id <> ALL (CAST(:but AS uuid[]));

-- name: passkeys
SELECT id, name, made_at, used_at FROM passkey WHERE owner_id = :owner_id ORDER BY made_at, id;

-- name: passkey_of^
SELECT id, owner_id, public_key, sign_count FROM passkey WHERE id = :id;

-- name: add_passkey!
INSERT INTO passkey (id, owner_id, public_key, sign_count, name) VALUES (:id, :owner_id, :public_key, :sign_count, :name);

-- name: use_passkey!
UPDATE passkey SET sign_count = :sign_count, used_at = now() WHERE id = :id;

-- name: remove_passkey!
DELETE FROM passkey WHERE owner_id = :owner_id AND id = :id;

-- name: keep_good_once!
INSERT INTO good_once (digest, of_what, address, until)
VALUES (:digest, :of_what, :address, now() + make_interval(mins => :minutes));

-- name: look_good_once^
SELECT address FROM good_once WHERE digest = :digest AND of_what = :of_what AND until > now();

-- name: use_good_once^
DELETE FROM good_once WHERE digest = :digest AND of_what = :of_what AND until > now() RETURNING address;

-- name: forget_good_once!
DELETE FROM good_once WHERE until < now();

-- name: forget_sessions!
DELETE FROM signed_in WHERE owner_id = :owner_id AND seen_at < now() - make_interval(days => :days);

-- name: count_attempts^
SELECT count(*) AS made, extract(epoch FROM min(at))::float8 AS first
  FROM attempt WHERE whose = :whose AND at > clock_timestamp() - make_interval(secs => :seconds);

-- name: add_attempts!
INSERT INTO attempt (whose) SELECT :whose FROM generate_series(1, :amount);

-- name: forget_attempts!
DELETE FROM attempt WHERE whose = :whose;

-- name: forget_old_attempts!
DELETE FROM attempt WHERE at < clock_timestamp() - interval '1 day';

-- name: forget_owner!
SELECT forget_owner(:owner_id);
