"""What to do at each stop: fill, buy, refuel, charge, restock."""

import numpy as np

from omnifer.core.model.lanes import AtStop, Deed, ShopItem, VesselFill
from omnifer.core.model.quantities import ROUNDING, Text
from omnifer.core.model.road import Stop
from omnifer.core.model.supplies import CARRIED
from omnifer.core.model.tour import TourSheet
from omnifer.core.sentence import fine_kg, hours, kg, litres, minutes, number, say, wh
from omnifer.core.stores.shopping import Larder
from omnifer.core.supplies import food, used_up, water
from omnifer.core.supplies.power import Charge
from omnifer.core.supplies.stock import fills, supply_in
from omnifer.core.supplies.supply import Supply
from omnifer.core.voyage import Voyage

SHOWN_SHORT = 0.05
"""Less of a unit or a pack than this is not said to be short [-]."""
NAMED_FIRST = 3
"""Of what is plugged in first, so much is named."""
HARDLY = 0.01
"""A vessel with no more than this is empty, and one that lacks no more is full [l, kg]."""


def stops_of(tour: TourSheet, voyage: Voyage, from_km: float = 0.0) -> list[AtStop]:
    """Every place where something can be taken on, in road order; the start first. Places before a kilometre are left out."""
    larder = Larder(voyage)
    deeds: dict[str | None, list[Deed]] = {}
    places: dict[str | None, tuple[Stop | None, str, float]] = {}
    for supply in voyage.supplies.values():
        deeds_of = _Deeds(tour, voyage, supply, larder)
        for place in range(supply.refills.km.size - 1):
            stop = supply.refills.stops[place]
            km = float(supply.refills.km[place])
            if supply.refills.emptied[place] or km < from_km:
                continue
            key = stop.id if stop is not None and place > 0 else None
            places.setdefault(key, (stop, supply.refills.names[place], km))
            if key is None and stop is not None:
                places[None] = stop, stop.name, km
            deeds.setdefault(key, []).append(deeds_of.at(place))
    for charge in voyage.power.charges if voyage.power else []:
        if charge.stop.at_km < from_km:
            continue
        key = charge.stop.id
        places.setdefault(key, (charge.stop, charge.stop.name, charge.stop.at_km))
        deeds.setdefault(key, []).append(_charged(tour, voyage, charge))
    thrown = _thrown(voyage)
    order = sorted(places, key=lambda key: (places[key][2], key is not None))
    return [_at(tour, voyage, key, places[key], deeds[key], thrown) for key in order]


def _at(
    tour: TourSheet, voyage: Voyage, key: str | None, place: tuple[Stop | None, str, float], deeds: list[Deed],
    thrown: dict[str, float],
) -> AtStop:  # fmt: skip
    stop, name, km = place
    visit = voyage.visits.get(stop.id) if stop is not None and key is not None else None
    stays = visit is not None and visit.stays_until is not None
    by_hand = sum(deed.minutes for deed in deeds)
    at_plug = 60 * tour.practice.plug_stop_h if any(d.verb == "charge" for d in deeds) and not stays else 0.0
    return AtStop(
        stop_id=key, name=name, at_km=round(km, 3), day=voyage.day_of(km, leaving=visit is None),
        date=visit.date if visit else tour.start_date, hour=round(visit.hour, 2) if visit else tour.road.start_hour,
        stays=stays, minutes=round(max(by_hand, at_plug)), bin_kg=round(thrown.get(key or "", 0.0), 2), deeds=deeds,
    )  # fmt: skip


class _Deeds:
    """What to do for one supply, place by place."""

    def __init__(self, tour: TourSheet, voyage: Voyage, supply: Supply, larder: Larder) -> None:
        self.tour, self.voyage, self.supply, self.larder, self.names = tour, voyage, supply, larder, tour.names
        self.taken: list[float] = supply.taken.tolist()
        self.lasting = _lasting(voyage, supply)
        name, unit = supply.kind.name, supply.kind.kg_per_unit or 1.0
        self.vessels = [(t, n) for t, n in voyage.ride.vessels if supply_in(t) == name]
        inside = fills(self.vessels, {name: supply.amounts.leaving * unit}, supply.refills.km)
        self.filled: list[list[float]] = [(held / unit).tolist() for held in inside]
        self.days: list[int] = (voyage.days.offset[voyage.days.riding_day(supply.refills.km, leaving=False)] + 1).tolist()

    def at(self, place: int) -> Deed:
        """What to do at one place."""
        supply, kind, amounts = self.supply, self.supply.kind, self.supply.amounts
        taken, stop = self.taken[place], supply.refills.stops[place]
        treated = kind.name == "water" and stop is not None and stop.treat_water
        by_hand = self._treats(place).minutes(taken) if treated else 0.0
        items = self.larder.buys(supply, place) if kind.name == "food" else _packs(self.tour, supply, taken)
        vessels = self._vessels(place)
        most = min(float(supply.capacity[place]) - float(amounts.arriving[place]), float(supply.refills.offers[place]))
        spec = CARRIED.get(kind.name)
        return Deed(
            lane=kind.name, verb=spec.verb if spec else "restock", unit=spec.quantity if spec else kind.unit,
            amount=round(taken, 3), leaves=round(float(amounts.leaving[place]), 3),
            asked=round(float(amounts.required[place]), 3), short=round(float(supply.short[place]), 3),
            most=round(most, 3) if np.isfinite(most) else None, fixed=bool(np.isfinite(supply.fixed[place])),
            minutes=round(by_hand, 1), money=self._money(items, taken), words=self._words(place),
            note=self._note(place, by_hand, treated, vessels), vessels=vessels, items=items,
        )  # fmt: skip

    def _treats(self, place: int) -> water.Method:
        """How water is treated there."""
        return water.treatment_of(self.voyage.ride, float(self.supply.refills.km[place]))

    def _vessels(self, place: int) -> list[VesselFill]:
        unit = self.supply.kind.kg_per_unit or 1.0
        return [
            VesselFill(
                thing_id=t.id, name=self.names[t.id], count=n, holds=round(t.holds_kg / unit, 3), filled=round(held[place], 3),
                soft=t.soft_vessel, until_day=self._filled_next(held, place),
            )
            for (t, n), held in zip(self.vessels, self.filled, strict=True)
        ]  # fmt: skip

    def _filled_next(self, held: list[float], place: int) -> int | None:
        """The day on which a vessel that leaves empty is filled next."""
        if held[place] > HARDLY:
            return None
        after = next((k for k in range(place + 1, len(held) - 1) if held[k] > HARDLY), None)
        return None if after is None else self.days[after]

    def _money(self, items: list[ShopItem], taken: float) -> float | None:
        prices = [item.price for item in items if item.price is not None]
        if items and len(prices) == len(items):
            return round(sum(prices), 2)
        return None if self.supply.terms.price is None else round(taken * self.supply.terms.price, 2)

    def _words(self, place: int) -> Text:
        """What to do in a few words."""
        taken, supply, days = self.taken[place], self.supply, self.lasting[place]
        pack = supply.terms.pack
        if taken <= ROUNDING * (supply.kind.name in CARRIED):
            return say("nothing")
        match supply.kind.name:
            case "water":
                full = supply.amounts.leaving[place] >= supply.capacity[place] - HARDLY
                return say("{amount}, every vessel full" if full else "{amount}", amount=litres(taken))
            case "food":
                volume = taken * food.l_per_kg(self.tour)
                return say(_for_days(days) + ": {mass}, {volume}", days=number(days), mass=kg(taken), volume=litres(volume))
            case "fuel" if pack:
                words = "{n} canister" + ("s" if round(taken / pack) != 1 else "") + ", {mass}"
                return say(words, n=number(round(taken / pack)), mass=fine_kg(taken))
            case "fuel":
                return say("{mass}, " + _for_days(days), mass=fine_kg(taken), days=number(days))
            case _:
                unit = "" if supply.kind.unit == "pieces" else supply.kind.unit
                size = number(pack)
                return say(
                    "{name}, {n} of {size} " + unit, name=self.names[supply.kind.name], n=number(round(taken / pack)), size=size
                )

    def _note(self, place: int, by_hand: float, treated: bool, vessels: list[VesselFill]) -> Text | None:
        """What is short, how it is treated, or what stays empty."""
        supply = self.supply
        short, asked = float(supply.short[place]), float(supply.amounts.required[place])
        if short > SHOWN_SHORT * (supply.terms.pack or 1):
            make = {"water": litres, "food": kg, "fuel": fine_kg}.get(supply.kind.name)
            if make is None:
                unit = " " + supply.kind.unit
                return say(
                    "{asked}" + unit + " asked, {short}" + unit + " short", asked=number(round(asked)), short=number(round(short))
                )
            return say("{asked} asked, {short} short", asked=make(round(asked, 2)), short=make(round(short, 2)))
        if treated and self.taken[place] > 0:
            treats = self._treats(place)
            if treats.thing is None:
                return say("to be treated, and nothing on board does")
            words = "{thing}: {by_hand} by hand" + (", then wait {wait}" if treats.wait_min else "")
            return say(words, thing=self.names[treats.thing.id], by_hand=minutes(by_hand), wait=minutes(treats.wait_min))
        empty = [v for v in vessels if v.filled <= HARDLY and v.until_day is not None]
        if empty:
            names = " and ".join(dict.fromkeys(v.name for v in empty))
            words = "{names} stay empty to day {day}" if len(empty) > 1 else "{names} stays empty to day {day}"
            return say(words, names=names, day=number(min(v.until_day or 0 for v in empty)))
        return None


def _packs(tour: TourSheet, supply: Supply, taken: float) -> list[ShopItem]:
    """Whole packs and canisters; what is filled by the litre is none."""
    pack, price = supply.terms.pack, supply.terms.price
    if not pack or taken <= 0:
        return []
    packs = round(taken / pack)
    thing = next((t for t in tour.kit if t.id == supply.kind.name), None)
    volume = 0.0 if thing is None else thing.volume_l * packs
    return [
        ShopItem(
            id=supply.kind.name, name=thing.name if thing is not None else "canister", packs=packs, pack=pack,
            unit=supply.kind.unit, kg=round(taken * supply.kind.kg_per_unit, 3), litres=round(volume, 2),
            sold_litres=round(volume, 2), price=None if price is None else round(taken * price, 2), eat_first=False,
        )
    ]  # fmt: skip


def _for_days(days: float) -> str:
    return "for a day" if days == 1 else "for {days:day|days}"


def _lasting(voyage: Voyage, supply: Supply) -> list[float]:
    """Days that what is on board on leaving each place lasts."""
    km, at = voyage.days.km, supply.refills.km
    gone, here = (supply.gone(marks, np.ones(marks.size, dtype=bool), voyage.nodes.km) for marks in (km, at))
    calendar = np.append(voyage.days.offset, voyage.days.count).astype(float)
    lasts = np.interp(here + supply.amounts.leaving, gone, calendar) - np.interp(at, km, calendar)
    rounded: list[float] = np.round(np.maximum(lasts, 0.0), 1).tolist()
    return rounded


def _charged(tour: TourSheet, voyage: Voyage, charge: Charge) -> Deed:
    power = voyage.power
    assert power is not None
    enough = charge.hours >= charge.wanted_h
    words = say("{got} in {hours}", got=wh(charge.got_wh), hours=hours(min(charge.hours, charge.wanted_h)))
    if charge.got_wh <= 0:
        words = say("nothing to charge") if enough else say("no charger fits the socket")
    names = ", then ".join(tour.names.get(one, "the bank") for one in charge.first[:NAMED_FIRST])
    told = ["plug in first {first}"] * bool(names) + ["everything full after {hours}"] * (not enough)
    longer = say("; ".join(told), first=names, hours=hours(charge.wanted_h)) if told and charge.got_wh > 0 else None
    return Deed(
        lane="power", verb="charge", unit="energy", amount=round(charge.got_wh, 1), leaves=round(charge.left_wh, 1),
        asked=round(power.capacity_wh, 1), short=0.0, most=None, fixed=False, minutes=0.0, money=None, words=words, note=longer,
        vessels=[], items=[],
    )  # fmt: skip


def _thrown(voyage: Voyage) -> dict[str, float]:
    """Waste that goes into the bin at each stop [kg]."""
    bins = used_up.bins(voyage.ride)
    km = np.array([stop.at_km for stop in bins])
    if not bins:
        return {}
    carried = used_up.waste(voyage.ride, voyage.supplies, km, np.zeros(km.size, dtype=bool))
    return {stop.id: amount for stop, amount in zip(bins, carried.tolist(), strict=True)}
