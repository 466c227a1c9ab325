"""All that a rider has, in one archive of open formats."""

import io
import json
import re
import zipfile

from omnifer.formats.bundle import write_bundle
from omnifer.formats.diary_csv import write_diary_csv
from omnifer.office.desk import Desk
from omnifer.store.accounts import Account
from omnifer.store.tours import UnreadableError

PAGE = 200
README = """All that you have at Omnifer.

account.json             your account
tours/*.json             each tour as a bundle: Omnifer brings it back, any program reads it (JSON)
tours/*-diary.json       what was noted on it, entry by entry; *-diary.csv the same as a sheet
tours/*/                 its pictures, by the identifier of the entry
library.json             your own things; library/ their pictures
"""


def archive_of(desk: Desk, account: Account) -> bytes:
    """A zip archive of all tours, those put away as well, of their diaries and pictures, of the library, and of the account."""
    told = io.BytesIO()
    with zipfile.ZipFile(told, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("README.txt", README)
        made = {"address": account.address, "made_at": account.made_at.isoformat()}
        archive.writestr("account.json", json.dumps(made, indent=1))
        for line in (*desk.tours.list(), *desk.tours.list(removed=True)):
            _tour(desk, archive, line.id, f"tours/{re.sub(r'[^A-Za-z0-9]+', '-', line.name).strip('-') or 'tour'}-{line.id[:8]}")
        _library(desk, archive)
    return told.getvalue()


def _tour(desk: Desk, archive: zipfile.ZipFile, tour_id: str, name: str) -> None:
    try:
        stored = desk.tours.read(tour_id)
    except UnreadableError as error:
        archive.writestr(f"{name}.json", json.dumps({"format": "omnifer-tour", "version": error.version, "tour": error.document}))
        return
    archive.writestr(f"{name}.json", write_bundle(desk.whole(stored)))
    entries, _ = desk.diary.read(tour_id)
    if not entries:
        return
    archive.writestr(f"{name}-diary.json", json.dumps([one.model_dump(mode="json") for one in entries], indent=1))
    archive.writestr(f"{name}-diary.csv", write_diary_csv(desk.journal(tour_id), stored.sheet))
    for one in entries:
        if one.has_picture:
            archive.writestr(f"{name}/{one.entry.id}.jpg", desk.diary.picture(tour_id, str(one.entry.id)))


def _library(desk: Desk, archive: zipfile.ZipFile) -> None:
    things, first = [], 0
    while True:
        rows, total = desk.library.page(first=first, most=PAGE)
        things += rows
        first += PAGE
        if first >= total:
            break
    archive.writestr("library.json", json.dumps([row.thing.model_dump(mode="json") for row in things], indent=1))
    for row in things:
        if row.has_picture:
            archive.writestr(f"library/{row.id}.jpg", desk.library.picture(row.id))
