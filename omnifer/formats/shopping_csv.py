"""The shopping list as a sheet: what to fill, buy, refuel and charge at each stop, a row each."""

from collections.abc import Iterator

from omnifer.core.model.lanes import AtStop, Deed
from omnifer.core.sentence import clock
from omnifer.formats.sheet import SheetWriter

COLUMNS = ("day", "date", "time", "km", "stop", "do", "what", "amount", "unit", "packs", "pack", "price", "eat first", "note")
UNITS = {"volume": "l", "mass": "kg", "energy": "Wh"}


def write_shopping_csv(stops: list[AtStop]) -> str:
    """One row for everything that is taken on, in road order; food by what is bought of it."""
    sheet = SheetWriter()
    sheet.row(COLUMNS)
    for stop in stops:
        at = [stop.day, stop.date.isoformat(), clock(stop.hour), f"{stop.at_km:g}", stop.name]
        for deed in stop.deeds:
            for row in rows_of(deed):
                sheet.row([*at, *row])
        if stop.bin_kg >= 0.05:
            sheet.row([*at, "empty the bin", "waste", f"{stop.bin_kg:g}", "kg", "", "", "", "", ""])
    return sheet.text()


def rows_of(deed: Deed) -> Iterator[list[object]]:
    """What one deed comes to, from the verb on; nothing where nothing is taken."""
    note = deed.note.metric() if deed.note is not None else ""
    if deed.amount <= 0:
        return
    if not deed.items:
        price = "" if deed.money is None else f"{deed.money:g}"
        yield [deed.verb, deed.words.metric(), f"{deed.amount:g}", UNITS.get(deed.unit, deed.unit), "", "", price, "", note]
    for item in deed.items:
        price = "" if item.price is None else f"{item.price:g}"
        first = "yes" if item.eat_first else ""
        yield [deed.verb, item.name, f"{item.kg:g}", "kg", item.packs, f"{item.pack:g} {item.unit}", price, first, note]
        note = ""


def lines_of(stop: AtStop) -> Iterator[str]:
    """What to do at a stop in plain words, for the calendar."""
    for deed in stop.deeds:
        if deed.amount > 0:
            names = ", ".join(f"{item.packs} × {item.name}" for item in deed.items)
            yield f"{deed.verb} at {stop.name}: {deed.words.metric()}" + (f" ({names})" if names and deed.verb == "buy" else "")
    if stop.bin_kg >= 0.05:
        yield f"empty the bin at {stop.name}"
