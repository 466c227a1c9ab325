-- depends: 0009_maps
-- Riders of a hosted Omnifer: who they are, how they sign in, where they are signed in. On a laptop these tables stay empty.

-- A row is seen by its owner, or by whoever names what it is found by, a secret or an address, for the length of a transaction.
CREATE FUNCTION knows() RETURNS text LANGUAGE sql STABLE
    RETURN nullif(current_setting('omnifer.knows', true), '');

CREATE TABLE account (
    owner_id bigint      PRIMARY KEY REFERENCES owner,
    address  text        NOT NULL,
    known_as text        GENERATED ALWAYS AS (lower(address)) STORED UNIQUE,
    password text,       -- argon2id with its parameters; none: passkeys only
    made_at  timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE passkey (
    id         text        PRIMARY KEY,
    owner_id   bigint      NOT NULL REFERENCES account ON DELETE CASCADE,
    public_key bytea       NOT NULL,
    sign_count bigint      NOT NULL,
    name       text        NOT NULL,
    made_at    timestamptz NOT NULL DEFAULT now(),
    used_at    timestamptz
);
CREATE INDEX passkey_by_owner ON passkey (owner_id);

-- Signed in on a device, as long as the row stands. The cookie holds a secret, the row its digest.
CREATE TABLE signed_in (
    digest   text        PRIMARY KEY,
    id       uuid        NOT NULL UNIQUE DEFAULT gen_random_uuid(),
    owner_id bigint      NOT NULL REFERENCES account ON DELETE CASCADE,
    device   text        NOT NULL,
    made_at  timestamptz NOT NULL DEFAULT now(),
    seen_at  timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX signed_in_by_owner ON signed_in (owner_id);

-- What is good once and for a while: a link sent by mail, to make an account or choose another password; a passkey's challenge.
CREATE TABLE good_once (
    digest  text        PRIMARY KEY,
    of_what text        NOT NULL CHECK (of_what IN ('link', 'challenge')),
    address text        NOT NULL,
    until   timestamptz NOT NULL
);

-- Attempts of the last while, by the digest of whose they are: counted for all processes together.
CREATE TABLE attempt (
    whose text        NOT NULL,
    at    timestamptz NOT NULL DEFAULT clock_timestamp()
);
CREATE INDEX attempt_by_whose ON attempt (whose, at);

CREATE POLICY own ON account   USING (owner_id = acting_owner() OR lower(address) = knows());
CREATE POLICY own ON passkey   USING (owner_id = acting_owner() OR id = knows());
CREATE POLICY own ON signed_in USING (owner_id = acting_owner() OR digest = knows());
CREATE POLICY own ON good_once USING (digest = knows() OR until < now()) WITH CHECK (true);

ALTER TABLE account   ENABLE ROW LEVEL SECURITY;
ALTER TABLE account   FORCE  ROW LEVEL SECURITY;
ALTER TABLE passkey   ENABLE ROW LEVEL SECURITY;
ALTER TABLE passkey   FORCE  ROW LEVEL SECURITY;
ALTER TABLE signed_in ENABLE ROW LEVEL SECURITY;
ALTER TABLE signed_in FORCE  ROW LEVEL SECURITY;
ALTER TABLE good_once ENABLE ROW LEVEL SECURITY;
ALTER TABLE good_once FORCE  ROW LEVEL SECURITY;

-- All that an owner has, gone for good: what hangs on tours, things, errands and the account goes with them.
CREATE FUNCTION forget_owner(gone bigint) RETURNS void LANGUAGE plpgsql AS $$
BEGIN
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
