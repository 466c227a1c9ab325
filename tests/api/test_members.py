"""Companions of a tour: who may do what, how they come and go, and that the database itself keeps the rest apart."""

import re
import uuid

import psycopg
import pytest

from omnifer.store.accounts import digest_of
from omnifer.store.database import NotThereError, acting
from omnifer.store.diary import Diary
from omnifer.store.members import Members
from omnifer.store.tours import Tours
from tests.api.hosted import FIRST, NOBODYS, SECOND, SITE, device, new_tour, operations, rider
from tests.api.snooping import snooped
from tests.conftest import small_tour

THIRD = "cleo@example.org"

# Who may do what with a tour, after the table of the design: reading along sees, riding along changes, the owner shares and removes.
# What is told is told to all; each operation that is no GET stands here.
RIDES = [
    "add_entries",
    "ask_heights",
    "ask_map",
    "ask_scale",
    "bring_heights",
    "bring_station",
    "bring_track",
    "change_tour",
    "choose",
    "hand_on",
    "import_kit",
    "import_stops",
    "keep_entry_picture",
    "lay_track",
    "learn_pace",
    "look_at_map",
    "make_known",
    "pack_anew",
    "plan_at_risk",
    "propose",
    "put_in_library",
    "rehearse",
    "repair",
    "ride_variant",
    "shape_track",
    "spares_at_risk",
    "step_tour",
    "take_measured",
    "take_rate",
    "this_is_me",
    "tick",
    "two_plans",
]
READS = ["try_change", "preview_kit", "preview_stops", "one_play", "leave_tour", "here"]
OWNS = ["delete_tour", "restore_tour", "copy_tour", "invite", "revoke_invitation", "remove_companion"]


def invited(owner, tour: str, rides: bool = True, address: str | None = None) -> str:
    """The secret of an invitation."""
    said = owner.post(f"/api/tours/{tour}/invitations", json={"rides": rides, "address": address})
    assert said.status_code == 201, said.json
    return said.json["link"].removeprefix(f"{SITE}/join#invitation=")


def joined(client, secret: str):
    return client.post("/api/invitations", json={"invitation": secret})


@pytest.fixture
def party(hosted, mailbox):
    """The owner, who rides along, who reads along, and their tour."""
    owner, rides, reads = (rider(hosted, mailbox, who) for who in (FIRST, SECOND, THIRD))
    tour = new_tour(owner)
    assert joined(rides, invited(owner, tour)).json == {"tour_id": tour}
    assert joined(reads, invited(owner, tour, rides=False)).json == {"tour_id": tour}
    return owner, rides, reads, tour


def test_every_operation_on_a_tour_is_open_to_whom_the_table_says(hosted, mailbox, party):
    owner, rides, reads, tour = party
    stranger, nobody = rider(hosted, mailbox, "dora@example.org"), device(hosted)
    seen = set()
    for method, path, name in operations(hosted):
        if "{tour_id}" not in path:
            continue
        told = name in READS or (method == "get" and name not in RIDES + OWNS)
        if method != "get":
            assert name in RIDES + READS + OWNS, f"{name} stands in no row of the table of rights"
        seen.add(name)
        there = re.sub(r"\{\w+\}", "1", path.replace("{tour_id}", tour))
        if name not in ("leave_tour", "delete_tour"):  # whether these are open is shown below: they would end the party
            # Each is sent nothing it could take: it is refused by who asks, or gets as far as what was sent.
            answers = {who: getattr(c, method)(there, json=None if method == "get" else {}) for who, c in
                       {"owner": owner, "rides": rides, "reads": reads, "stranger": stranger, "nobody": nobody}.items()}  # fmt: skip
            refused = {who for who, a in answers.items() if a.is_json and a.json and a.json.get("title") == "Not yours to do"}
            assert refused == (set() if told else {"reads"} if name in RIDES else {"rides", "reads"}), name
            assert answers["nobody"].status_code == 401, name
            assert b"Secret" not in answers["stranger"].data, name
            nowhere = getattr(stranger, method)(there.replace(tour, NOBODYS), json=None if method == "get" else {})
            as_nowhere = answers["stranger"].data.replace(tour.encode(), NOBODYS.encode())
            assert (answers["stranger"].status_code, as_nowhere) == (nowhere.status_code, nowhere.data), name
            assert all(a.status_code < 500 for a in answers.values()), (name, answers)
    assert seen >= {*RIDES, *READS, *OWNS}
    for gone in (rides, reads):
        assert gone.delete(f"/api/tours/{tour}/1").status_code == 403
    assert owner.get(f"/api/tours/{tour}").status_code == 200


def test_companions_work_on_one_tour_and_their_things_stay_their_own(party):
    owner, rides, reads, tour = party
    path = f"/api/tours/{tour}"
    for client, by in ((rides, FIRST), (reads, FIRST), (owner, None)):
        (line,) = client.get("/api/tours").json["tours"]
        assert (line["name"], line["shared_by"]) == ("Secret way", by)
    changed = rides.patch(path, json={"revision": 1, "what": "Rename", "name": "Our way"})
    assert changed.status_code == 200, changed.json
    assert owner.get(path).json["tour"]["sheet"]["name"] == reads.get(path).json["tour"]["sheet"]["name"] == "Our way"
    # At once: another part merges, the same part is told to whoever came second.
    aims = owner.get(path).json["tour"]["sheet"]["aims"]
    assert owner.patch(path, json={"revision": 1, "what": "Aims", "aims": aims, "money": "EUR"}).status_code == 200
    late = owner.patch(path, json={"revision": 1, "what": "Rename", "name": "My way"})
    assert (late.status_code, late.json["title"]) == (409, "Changed elsewhere")
    entry = {
        "id": str(uuid.uuid4()),
        "verb": "note",
        "note": "Rain",
        "at": "2027-05-01T10:00:00+00:00",
        "phone": "p1",
        "number": 1,
    }
    assert rides.post(f"{path}/diary", json={"entries": [entry]}).status_code in (200, 201)
    assert "Rain" in owner.get(f"{path}/diary").text
    assert "Rain" in reads.get(f"{path}/diary").text
    # Undone by whoever is there.
    now = rides.get(path).json["tour"]["revision"]
    assert owner.post(f"{path}/step", json={"revision": now, "step": "undo"}).json["tour"]["sheet"]["money"] != "EUR"
    # What the companion puts into a library is the companion's own.
    now = rides.get(path).json["tour"]["revision"]
    put = rides.post(f"{path}/library", json={"revision": now, "ids": ["tent"]})
    assert put.status_code == 200, put.json
    assert [t["thing"]["name"] for t in rides.get("/api/library").json["things"]] != []
    assert owner.get("/api/library").json["things"] == []


def test_an_invitation_is_good_once_while_it_stands_and_for_somebody_else(hosted, mailbox):
    owner, guest = rider(hosted, mailbox, FIRST), rider(hosted, mailbox, SECOND)
    tour = new_tour(owner)
    secret = invited(owner, tour, address=SECOND)
    assert mailbox.mails()[-1]["To"] == SECOND
    assert f"{SITE}/join#invitation={secret}" in mailbox.mails()[-1].get_payload(decode=True).decode()
    assert joined(owner, secret).status_code == 422
    assert joined(guest, secret).status_code == 200
    told = owner.get(f"/api/tours/{tour}/companions").json
    assert ([c["known_as"] for c in told["companions"]], told["invitations"]) == ([SECOND], [])
    revoked = invited(owner, tour)
    (standing,) = owner.get(f"/api/tours/{tour}/companions").json["invitations"]
    assert guest.get(f"/api/tours/{tour}/companions").json["invitations"] == []
    assert owner.delete(f"/api/tours/{tour}/invitations/{standing['id']}").status_code == 204
    third = rider(hosted, mailbox, THIRD)
    for used in (secret, revoked, "made-up"):
        assert (joined(third, used).status_code, third.get("/api/tours").json["tours"]) == (422, [])
    # Removed by the owner: the tour is nowhere, as for anybody else.
    assert owner.delete(f"/api/tours/{tour}/companions/{told['companions'][0]['id']}").status_code == 204
    assert (guest.get(f"/api/tours/{tour}").status_code, guest.get("/api/tours").json["tours"]) == (404, [])


def test_this_is_me_until_i_leave(party):
    owner, rides, _, tour = party
    path = f"/api/tours/{tour}"
    (someone, *_) = owner.get(path).json["tour"]["sheet"]["riders"]
    assert rides.put(f"{path}/self", json={"is_rider": someone["id"]}).status_code == 204
    assert rides.put(f"{path}/self", json={"is_rider": "nobody"}).status_code == 422
    assert rides.get(f"{path}/companions").json["is_rider"] == someone["id"]
    assert owner.get(f"{path}/companions").json["is_rider"] is None
    assert rides.post(f"{path}/here", json={"view": "load"}).json["others"] == []
    told = owner.post(f"{path}/here", json={"view": "kit"}).json
    assert told == {"revision": 1, "others": [{"known_as": SECOND, "is_rider": someone["id"], "view": "load"}]}
    assert rides.delete(f"{path}/self").status_code == 204
    assert rides.get(path).status_code == 404
    assert [c["right"] for c in owner.get(f"{path}/companions").json["companions"]] == ["reads"]


def test_who_lets_an_account_go_is_no_companion_any_more_and_leaves_the_tour(hosted, party):
    owner, rides, _, tour = party
    (someone, *_) = owner.get(f"/api/tours/{tour}").json["tour"]["sheet"]["riders"]
    assert rides.put(f"/api/tours/{tour}/self", json={"is_rider": someone["id"]}).status_code == 204
    assert rides.post("/api/account/leave", json={"address": SECOND, "password": "four mild lentils"}).status_code == 204
    assert [c["known_as"] for c in owner.get(f"/api/tours/{tour}/companions").json["companions"]] == [THIRD]
    assert owner.get(f"/api/tours/{tour}").status_code == 200


def test_the_database_itself_knows_who_may_what(hosted, party):
    """Statements that no code of ours would send, as each of them: row-level security says the same as the table of rights."""
    _, _, _, tour = party
    pool = hosted.extensions["omnifer"].pool
    numbers = {}
    for who in (FIRST, SECOND, THIRD):
        with pool.connection() as connection, connection.transaction():
            connection.execute("SELECT set_config('omnifer.knows', %s, true)", (who,))
            numbers[who] = connection.execute("SELECT owner_id FROM account").fetchone()["owner_id"]
    owner, rides, reads = numbers.values()
    entry = "INSERT INTO diary_entry (owner_id, tour_id, id, author, body) VALUES (%s, %s, gen_random_uuid(), 'x', '{}')"
    join = ("INSERT INTO member (owner_id, tour_id, rider_id, rides, known_as, invited_by) VALUES (%s, %s, %s, true, '', '')")  # fmt: skip
    with acting(pool, rides) as connection:
        connection.execute(entry, (owner, tour))
        assert connection.execute("DELETE FROM tour").rowcount == 0
        assert connection.execute("UPDATE member SET rides = true").rowcount == 0
        assert connection.execute("SELECT count(*) AS n FROM member").fetchone()["n"] == 1
        assert connection.execute("SELECT count(*) AS n FROM owned").fetchone()["n"] == 0
    with acting(pool, reads) as connection:
        assert connection.execute("SELECT count(*) AS n FROM tour").fetchone()["n"] == 1
        assert connection.execute("UPDATE tour SET changed_at = now()").rowcount == 0
        for table in ("tour_part", "state_part", "tour_step", "packed"):
            assert connection.execute(f"DELETE FROM {table}").rowcount == 0
    for statement, values in ((entry, (owner, tour)), (join, (owner, tour, reads)), (join, (reads, tour, reads))):
        with pytest.raises(psycopg.Error), acting(pool, reads) as connection:
            connection.execute(statement, values)
    # An invitation to read along is none to ride along, and none to another tour.
    secret = Members(pool, owner).invite(tour, False, "", FIRST)
    elsewhere = Tours(pool, owner).create(small_tour()).id

    def forge(to: str, rider_id: int) -> None:
        with acting(pool, rider_id) as connection:
            connection.execute("SELECT set_config('omnifer.knows', %s, true)", (digest_of(secret),))
            connection.execute("DELETE FROM member WHERE rider_id = %s", (rider_id,))
            connection.execute(join, (owner, to, rider_id))

    for to, rider_id in ((tour, reads), (elsewhere, rides)):
        with pytest.raises(psycopg.errors.InsufficientPrivilege):
            forge(to, rider_id)
    with pytest.raises(NotThereError):
        Diary(pool, owner, reads).add(elsewhere, ())


def test_no_answer_holds_a_word_of_anothers_whatever_is_asked(hosted):
    assert snooped(hosted, 2) > 150
