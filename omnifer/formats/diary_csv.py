"""The diary as a sheet, one row an entry."""

from omnifer.core.diary.journal import Journal
from omnifer.core.model.tour import TourSheet
from omnifer.formats.sheet import SheetWriter


def write_diary_csv(journal: Journal, tour: TourSheet) -> str:
    """All entries as they were noted, those that were undone marked as such."""
    names = {thing.id: thing.name for thing in tour.kit} | {carrier.id: carrier.name for carrier in tour.carriers}
    out = SheetWriter()
    out.row(["date", "time", "km", "who", "what", "about", "amount", "kg", "money", "word", "note", "undone", "id"])
    for told in journal.every:
        entry = told.entry
        out.row(
            [told.date.isoformat(), f"{told.wall:%H:%M}", "" if entry.km is None else f"{entry.km:g}", entry.author,
             entry.verb.replace("_", " "), names.get(entry.about, entry.about) or entry.name,
             "" if entry.amount is None else f"{entry.amount:g}", "" if entry.kg is None else f"{entry.kg:g}",
             "" if entry.money is None else f"{entry.money:g}", entry.word.replace("_", " "), entry.note,
             "undone" if entry.id in journal.undone else "", str(entry.undoes or entry.id)]
        )  # fmt: skip
    return out.text()
