"""The library of the demo: all things of the sample, what lies at home, and a short tour that shares some of both."""

import datetime as dt

from omnifer.core.model.kit import Fit, Thing
from omnifer.core.model.library import bag_owned
from omnifer.core.model.rig import Rig
from omnifer.core.model.road import DayCut, Road, Shelter, Stop, TypedDay
from omnifer.core.model.roles import Mat, SleepingBag
from omnifer.core.model.stores import Stores
from omnifer.core.model.tour import Tour
from omnifer.core.rig.catalogue import carrier
from omnifer.demo.sample import EDVIN, demo_tour

WEEKEND = "Four days to Castrel"
WAY: tuple[tuple[float, str, Shelter], ...] = (
    (0, "Ossel", "room"), (38, "Mill Ford", "none"), (74, "Grey Sands", "site"), (120, "Corran", "none"),
    (162, "Lower Pinna", "room"),
    (196, "Three Barns", "none"), (231, "Vell", "site"), (280, "Ostle", "none"), (323, "Castrel", "room"),
)  # fmt: skip
SHARED = (
    "tarp", "silk-liner", "air-mat-thin", "rain-cape", "wool-jumper", "warm-gloves-large", "first-aid-kit", "multi-tool", "pump",
    "tubes-622", "tyre-levers-and-patches", "phone-edvin", "power-bank", "charger-and-cables", "light-lock", "helmet-edvin",
    "head-lamp-edvin", "tail-lamp-edvin", "purse", "pot-2-l", "spoons", "bottle-0-75-l",
)  # fmt: skip
"""Of the sample's things those that Edvin takes along on the short tour too."""


def at_home() -> tuple[Thing, ...]:
    """Things that come along on neither tour: one near its end, one borrowed, one wished for."""
    return (
        Thing(
            id="foam-mat", name="Foam mat", group="sleep", mass_kg=0.38, volume_l=5, longest_mm=500, reach="night",
            role=Mat(r_value=2.0),
        ),
        Thing(
            id="down-quilt", name="Down quilt", group="sleep", mass_kg=0.6, volume_l=4, pressed_l=2.5, reach="night", dry="must",
            natures=("down", "clean"), condition="near_its_end", role=SleepingBag(comfort_c=9),
        ),
        Thing(
            id="t25-key", name="T25 key", group="tools", mass_kg=0.02, volume_l=0.01, longest_mm=80, reach="stop",
            serves=("keys",), fit=Fit(keys=("T25",)),
        ),
        Thing(
            id="head-torch-borrowed", name="Head torch, borrowed", group="electronics", mass_kg=0.08, volume_l=0.2, reach="camp",
            held="borrowed", serves=("torch",),
        ),
        Thing(
            id="lock-key-spare", name="Second key of the lock", group="lock", mass_kg=0.01, volume_l=0.01, reach="breaks",
            serves=("lock_key",),
        ),
        bag_owned(
            carrier("handlebar_box", "old-bar-bag", "handlebar", name="Old handlebar bag", volume_l=5.5, limit_kg=2.4, price=55,
                    leaks="along the zip")
        ).model_copy(update={"condition": "worn", "last_time": "Swayed at 3 kg and let water in along the zip."}),
        Thing(
            id="tent-light", name="Tent inner, lighter", group="tent", mass_kg=0.56, volume_l=2.6, reach="camp", price=240,
            held="wished", serves=("tent",), instead_of="tent-inner",
        ),
        Thing(
            id="jumper-light", name="Jumper, lighter", group="layers", mass_kg=0.14, volume_l=1.0, reach="stop", price=60,
            held="wished", serves=("fleece",), instead_of="wool-jumper",
        ),
    )  # fmt: skip


def weekend(kit: tuple[Thing, ...]) -> Tour:
    """Edvin's short tour with things of the library, before the long one."""
    sample = demo_tour(load=False)
    bike = next(b for b in sample.rig.bikes if b.rider_id == EDVIN.id)
    alone = bike.model_copy(
        update={
            "supports": tuple(s for s in bike.supports if s.trailer is None),
            "carriers": tuple(c for c in bike.carriers if not c.id.startswith("edvin-trailer")),
        }
    )
    stops = tuple(
        Stop(id=f"weekend-{n}", name=name, at_km=km, water="reliable", shop="basic", shelter=shelter, services=("meals",))
        for n, (km, name, shelter) in enumerate(WAY)
    )
    days = tuple(TypedDay(distance_km=km, ascent_m=up) for km, up in ((74, 610), (88, 820), (69, 540), (92, 760)))
    return Tour(
        name=WEEKEND, start_date=dt.date(2027, 3, 19), riders=(EDVIN,), rig=Rig(bikes=(alone,)), kit=kit, money=sample.money,
        road=Road(typed_days=days, cut=DayCut(by="days", days=4), stops=stops), stores=Stores(cooking="none"),
    )  # fmt: skip
