"""What the bikes had done to them on the way: parts renewed, saddles and bars changed, weighings."""

from collections.abc import Iterator

from omnifer.core.diary.journal import Journal, Told, placed
from omnifer.core.diary.now import Replanned
from omnifer.core.diary.tended import about_part
from omnifer.core.model.debrief import BikeMark, BikeStory
from omnifer.core.model.diary import ON_THE_BIKE
from omnifer.core.model.quantities import Text
from omnifer.core.model.rig import Bike
from omnifer.core.model.tour import TourSheet
from omnifer.core.needs.wear import BY_KIND
from omnifer.core.sentence import kg, say


def bikes_of(sheet: TourSheet, made: Replanned, journal: Journal) -> list[BikeStory]:
    """Every bike of which anything was noted, in the order of noting; an entry without a place is where the one before was."""
    told = [BikeStory(bike_id=b.id, name=b.name, marks=list(_marks(sheet, made, journal, b))) for b in sheet.rig.bikes]
    return [story for story in told if story.marks]


def _marks(sheet: TourSheet, made: Replanned, journal: Journal, bike: Bike) -> Iterator[BikeMark]:
    for told, at_km in placed(journal):
        words = _words(sheet, told, bike)
        if words is not None:
            day = max((told.date - made.ridden.here.set_out).days + 1, 1)
            yield BikeMark(day=day, km=round(at_km, 1), words=words)


def _words(sheet: TourSheet, told: Told, bike: Bike) -> Text | None:
    """What an entry says of a bike; None where it says nothing of it."""
    entry = told.entry
    if entry.verb == "mended":
        part = next((row for row in BY_KIND.values() if entry.about == about_part(row.kind, bike.id)), None)
        return say("new {part}", part=part.words) if part is not None else None
    if entry.verb == "weighed" and entry.word == "whole" and entry.about == bike.id:
        return say("weighed: {kg}", kg=kg(told.weighs_kg))
    if entry.verb == "hurt" and entry.word in ON_THE_BIKE and _whose(sheet, entry.author) == bike.rider_id:
        return say("{what} changed, for the {where}", what=entry.word, where=entry.about)
    return None


def _whose(sheet: TourSheet, author: str) -> str | None:
    """The rider who noted something; of a party of one that one, else None where nobody is called so."""
    named = next((rider.id for rider in sheet.riders if rider.name == author), None)
    return sheet.riders[0].id if len(sheet.riders) == 1 else named
