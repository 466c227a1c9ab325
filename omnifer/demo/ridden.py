"""The second tour of the demo: ridden last summer, with its diary of six weeks, weighings and verdicts. All of it is invented."""

import datetime as dt
import random
from collections.abc import Iterator
from typing import Any
from uuid import UUID, uuid5

from omnifer.core.model.diary import WHEELS, Entry
from omnifer.core.model.kit import Thing
from omnifer.core.model.road import DayCut, Road, Shelter, Shop, Stop
from omnifer.core.model.tour import Tour
from omnifer.demo.country import station, track_of
from omnifer.demo.sample import demo_tour

NAME = "Ebban Strand to Grey Stair"
START = dt.date(2026, 8, 3)
LENGTH_KM = 2140.0
SEED = 20260803
RELIEF = (
    (0, 5), (90, 120), (210, 60), (380, 420), (520, 310), (690, 1180), (760, 1890), (830, 1240), (1010, 640), (1180, 880),
    (1330, 1520), (1420, 2080), (1490, 1350), (1660, 520), (1850, 240), (2010, 330), (2140, 460),
)  # fmt: skip
ROUGHNESS = ((0, 40), (380, 80), (760, 110), (1010, 60), (1420, 100), (1660, 45), (2140, 60))
HEADING = ((0, 70), (520, 45), (1010, 80), (1420, 30), (2140, 60))
STATIONS = (
    station("Ebban Strand", 0, 5, (12, 6, 8, 2.8), (10, 78)),
    station("Corrow", 760, 1890, (3, 8, 10, 4.0), (12, 66)),
    station("Hask Col", 1420, 2080, (2, 8, 9, 4.0), (13, 68)),
    station("Grey Stair", 2140, 460, (13, 7, 9, 3.0), (9, 70)),
)
WAY: tuple[tuple[float, str, Shop, Shelter], ...] = (
    (0, "Ebban Strand", "full", "room"), (48, "Nettle Bridge", "basic", "site"), (103, "Sorrel", "full", "room"),
    (158, "Old Lock", "none", "wild"), (212, "Quarve", "basic", "site"), (268, "Three Mills", "basic", "none"),
    (325, "Pellan", "full", "room"), (382, "High Barn", "none", "wild"), (441, "Orrin", "full", "room"),
    (505, "Lower Orrin", "basic", "site"), (561, "Stoat Inn", "basic", "room"), (618, "Tarn Gate", "none", "wild"),
    (676, "Brekka", "full", "site"), (731, "Scree Hut", "none", "hut"), (788, "Corrow", "basic", "site"),
    (846, "Tolmead", "full", "room"), (905, "Gorse Mill", "basic", "site"), (962, "Ferrand", "basic", "none"),
    (1021, "Lindow", "full", "room"), (1080, "Withy Bend", "none", "wild"), (1138, "Marrow", "basic", "site"),
    (1195, "Haverbeck", "full", "room"), (1254, "Stone Ford", "none", "wild"), (1311, "Ulver", "basic", "site"),
    (1369, "Last Byre", "none", "hut"), (1428, "Hask Col", "none", "hut"), (1487, "Mirrow", "full", "room"),
    (1546, "Alder Pool", "basic", "site"), (1603, "Dunmere", "full", "room"), (1662, "Sedge End", "basic", "site"),
    (1721, "Wickan", "none", "wild"), (1780, "Tallow", "full", "room"), (1838, "Fenwater", "basic", "site"),
    (1897, "Cold Elm", "none", "wild"), (1956, "Rush", "full", "room"), (2014, "Bell Moor", "basic", "site"),
    (2073, "Under Stair", "basic", "site"), (2140, "Grey Stair", "full", "room"),
)  # fmt: skip
RESTS = (7, 15, 22, 31, 38)
"""Days on which nobody rode."""
DAYS = 42
COLD_NIGHTS = (27, 28)
"""Below the pass, in wind and with damp down."""
BORDER_KM, BEFORE_MIN, AFTER_MIN = 1240.0, -120, -180
PHONES = (("Runa", "phone-runa"), ("Edvin", "phone-edvin"))
NAMES = UUID("6a3e5f0e-8f0c-4a2e-9a53-3c0d5f4f2f11")
"""Under which the demo's entries are named."""
Draft = dict[str, Any]
HOME = {
    7: ("folding-chair", "travel-chess", "flask-half-litre"),
    22: ("second-lens", "frying-pan", "tarp"),
    31: ("padded-jacket",),
}
"""What was posted home on which day, where it is in the kit."""
HANDS, GLOVES = (4, 5, 8, 10, 12, 13, 26), 13
"""Days on which Runa's hands fell asleep, and the one on which she bought other gloves."""
NEVER = ("second-fuel-bottle", "memory-cards", "cutting-board", "long-underwear", "cap-and-scarf")
INSURANCE = ("first-aid-kit", "satellite-messenger", "brake-pads", "water-tablets")
SOME_DAYS = {"rain-jacket": 9, "rain-cape": 9, "down-jacket": 14, "fleece": 22, "warm-gloves": 4, "e-reader": 5, "sandals": 19}


def ridden_tour() -> Tour:
    """The tour as it was planned, with the sample's riders, rigs, kit and load on another road."""
    sample = demo_tour()
    kit = tuple(
        Thing.model_validate(t.model_dump() | {"where": (), "closed": False} if t.comes_and_goes else t) for t in sample.kit
    )
    stops = tuple(
        Stop(id=f"ridden-{n}", name=name, at_km=km, water="reliable", shop=shop, shelter=shelter,
             services=("meals", "plugs", "post") if shelter == "room" else (), fuels=("petrol",) if shop != "none" else (),
             bike_shop="basic" if name in ("Pellan", "Tolmead", "Mirrow", "Rush") else "none")
        for n, (km, name, shop, shelter) in enumerate(WAY)
    )  # fmt: skip
    road = Road(cut=DayCut(by="hours", hours=4.6), stops=stops, stations=STATIONS, start_hour=9)
    track = track_of(NAME, SEED, LENGTH_KM, (RELIEF, ROUGHNESS, HEADING), (48.4, -33.0))
    return sample.model_copy(
        update={"name": NAME, "start_date": START, "kit": kit, "road": road, "track": track, "variants": (), "kept_loads": (),
                "over": True, "to_self": "One glove warmer, one book less, and no pass after three in the afternoon."}
    )  # fmt: skip


def ridden_diary(tour: Tour) -> list[Entry]:
    """Its diary, in the order of noting: the same entries at every call."""
    return list(_Diary(tour))


class _Diary:
    """Two phones, six weeks."""

    def __init__(self, tour: Tour) -> None:
        self.tour = tour
        self.things = {thing.id: thing for thing in tour.kit}
        self.chance = random.Random(SEED)
        self.count = dict.fromkeys((phone for _, phone in PHONES), 0)

    def __iter__(self) -> Iterator[Entry]:
        """Noted in the order of the clock, and numbered so on each phone."""
        for one in sorted(self._all(), key=lambda draft: (draft["at"], draft["verb"], draft["about"])):
            self.count[one["phone"]] += 1
            number = self.count[one["phone"]]
            yield Entry.model_validate(one | {"id": uuid5(NAMES, f"{one['phone']} {number}"), "number": number})

    def _all(self) -> Iterator[Draft]:
        yield from self._before()
        for day in range(1, DAYS + 1):
            yield from self._day(day)
        yield self._note(DAYS, 17.5, "arrived", km=LENGTH_KM)
        yield from self._after()

    def _note(self, day: int, hour: float, verb: str, who: int = 0, km: float | None = None, **more: object) -> Draft:
        author, phone = PHONES[who]
        offset = AFTER_MIN if km is not None and km > BORDER_KM else BEFORE_MIN
        wall = dt.datetime.combine(START, dt.time(), dt.UTC) + dt.timedelta(days=day - 1, hours=hour)
        draft = {"phone": phone, "author": author, "at": wall - dt.timedelta(minutes=offset), "offset_min": offset, "km": km}
        return draft | {"verb": verb, "about": ""} | more

    def _before(self) -> Iterator[Draft]:
        for check in ("chain", "pads", "bolts", "tyres", "spokes"):
            for bike in self.tour.rig.bikes:
                yield self._note(-2, 18, "checked", about=f"{check}:{bike.id}", word="done")
        yield from self._wheels(-1, 19, None, {"bike-runa": (18.9, 24.2), "bike-edvin": (11.3, 15.1, 14.2)})
        yield self._note(1, 8.9, "set_out", km=0)

    def _wheels(self, day: int, hour: float, km: float | None, bikes: dict[str, tuple[float, ...]]) -> Iterator[Draft]:
        """Bikes weighed wheel by wheel, each wheel three times."""
        for bike_id, wheels in bikes.items():
            for wheel, kg in zip(WHEELS, wheels, strict=False):
                readings = (kg, kg + 0.02, kg - 0.02)
                yield self._note(day, hour, "weighed", km=km, about=bike_id, word=wheel, amount=kg, readings_kg=readings)

    def _at(self, day: int) -> float:
        """Where a day ends: some days longer than planned, more of them shorter, rest days where the last one ended [km]."""
        riding = [d for d in range(1, DAYS + 1) if d not in RESTS]
        done = [d for d in riding if d <= day]
        wave = [1 + 0.28 * ((d * 7919) % 11 - 5) / 5 for d in riding]
        return round(LENGTH_KM * sum(wave[: len(done)]) / sum(wave), 1)

    def _day(self, day: int) -> Iterator[Draft]:
        before, here, chance = self._at(day - 1) if day > 1 else 0.0, self._at(day), self.chance
        riding = day not in RESTS
        if riding and day % 3 == 0:
            yield self._note(day, 9.1, "packed_in", who=day % 2, km=before, amount=round(chance.gauss(30, 4)))
        if riding:
            hours = (here - before) / 14.5
            litres = round(max(chance.gauss(0.74, 0.1), 0.3) * hours * 2, 1)
            yield self._note(day, 18, "drank", who=day % 2, km=here, about="water", amount=litres)
        if day % 2 == 0:
            yield self._note(
                day, 18.2, "ate", who=day % 2, km=here, about="food", amount=round(max(chance.gauss(2.5, 0.25), 1), 2)
            )
            yield self._note(day, 18.5, "used", km=here, about="fuel", amount=round(max(chance.gauss(0.07, 0.012), 0.01), 3))
        if day % 4 == 0:
            yield self._note(day, 20, "used", who=1, km=here, about="wet-wipes", amount=float(chance.choice((4, 5, 6, 7))))
        if day % 5 == 1:
            yield self._note(day, 12, "used", km=here, about="sun-cream", amount=float(chance.choice((15, 20, 25))))
        if here > before and day % 3 == 2:
            yield self._note(day, 19, "charged", who=1, km=here, about="power", amount=round(chance.gauss(104, 12)))
        high = 650 < here < 850 or 1330 < here < 1490
        felt = "right" if high else chance.choice(("warm", "warm", "warm", "warm", "right"))
        felt = "cold" if day in COLD_NIGHTS else felt
        yield self._note(day, 21.5, "slept", who=day % 2, km=here, word=felt)
        if day % 3 == 1:
            yield self._note(day, 17, "spent", who=1, km=here, word="food", money=float(chance.randint(14, 31)))
        if riding and day % 4 == 3:
            yield self._note(day, 19.2, "oiled", km=here)
        if day in HANDS:
            yield self._note(day, 15.4, "hurt", km=here, about="hands", amount=3.0)
        if day == GLOVES:
            yield self._note(day, 15.5, "hurt", km=here, about="hands", word="gloves")
        if day in RESTS:
            yield self._note(day, 19.5, "spent", km=here, word="eaten_out", money=float(chance.randint(34, 52)))
            yield self._note(day, 11, "washed", km=here)
        for thing, days in SOME_DAYS.items():
            if thing in self.things and (day * 31 + len(thing) * 17) % DAYS < days:
                yield self._note(day, 20.5, "used", who=len(thing) % 2, km=here, about=thing)
        yield from self._events(day, before, here)

    def _events(self, day: int, before: float, here: float) -> Iterator[Draft]:
        for thing in HOME.get(day, ()):
            if thing in self.things:
                yield self._note(day, 10.5, "sent_home", km=here, about=thing, note="Posted on the rest day")
        match day:
            case 11 | 27 | 28:
                yield self._note(day, 13.2, "mended", who=1, km=round((before + here) / 2, 1), about="puncture", note="Thorn")
            case 13:
                yield self._note(day, 15, "bought", km=here, name="Thin gloves, windproof", kg=0.09, amount=1.0, money=24.0)
            case 19:
                yield self._note(day, 11, "wore", who=1, km=here, about="pads", amount=0.9)
                yield self._note(day, 11.2, "checked", who=1, km=here, about="bolts-100", word="done")
            case 22:
                yield from self._wheels(day, 12, here, {"bike-runa": (17.3, 23.2), "bike-edvin": (10.7, 14.2, 13.5)})
            case 24:
                yield self._note(day, 16, "broke", who=1, km=here, about="pump", note="The head; tied up with tape since")
            case 30:
                yield self._note(day, 16, "lost", km=here, about="windshield", note="Blown off the pass")
                yield self._note(day, 19.4, "mended", who=1, km=here, about="chain:bike-edvin", note="The gauge fell in")
            case 36:
                yield self._note(day, 11, "wore", who=1, km=here, about="pads", amount=1.1)
            case _:
                pass

    def _after(self) -> Iterator[Draft]:
        """Unpacking, bag by bag, within the week."""
        said: dict[str, str] = dict.fromkeys(NEVER, "never") | dict.fromkeys(INSURANCE, "insurance")
        said |= {
            "sleeping-bag-cold": "daily",
            "tent-inner": "daily",
            "stove": "daily",
            "pot-2-l": "daily",
            "helmet-runa": "daily",
            "phone-runa": "daily",
            "bottle-0-75-l": "daily",
            "wash-up-set": "daily",
            "wet-wipes": "some_days",
            "sun-sleeves": "wrong_one",
            "folding-chair": "never",
            "travel-chess": "never",
        }
        for thing, verdict in said.items():
            if thing in self.things:
                yield self._note(DAYS + 3, 20, "verdict", km=None, about=thing, word=verdict)
        yield self._note(DAYS + 3, 20.2, "verdict", about="runa-roll", word="wet")
        yield self._note(DAYS + 3, 20.3, "verdict", about="edvin-stem", word="hard_to_reach")
        yield self._note(DAYS + 3, 20.4, "verdict", about="nights", word="too_cold")
        yield self._note(DAYS + 3, 20.5, "verdict", name="Second pair of thin socks", kg=0.05, word="wished_for")
