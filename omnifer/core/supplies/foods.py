"""The foods that ship with Omnifer: energy as food tables have it, litres as sold and decanted as kitchen scales tell.

From memory of national food-composition tables, rounded; litres, packs and days are practice. The rider's own go before them.
"""

from omnifer.core.model.stores import Food

_ROWS = (
    # id, name, kcal/100 g, l/kg decanted, l/kg as sold, keeps [days], keeps in heat [days], needs, sold at, pack [g]
    ("pasta", "Pasta", 360, 1.8, 3.5, 1000, 1000, "cooking", "basic", 500),
    ("rice", "Rice", 360, 1.2, 1.25, 1000, 1000, "cooking", "basic", 500),
    ("oats", "Oats", 375, 2.5, 2.7, 200, 200, "nothing", "basic", 500),
    ("cereal-mix", "Cereal mix", 400, 2.2, 3, 120, 120, "nothing", "basic", 500),
    ("instant-noodles", "Instant noodles", 450, 3, 5, 200, 200, "boiling", "basic", 85),
    ("freeze-dried", "Freeze-dried meal", 460, 4, 6, 1000, 1000, "boiling", "full", 125),
    ("nuts", "Nuts", 600, 1.7, 2, 200, 100, "nothing", "basic", 200),
    ("nut-butter", "Nut butter", 600, 1, 1.2, 200, 200, "nothing", "full", 350),
    ("hard-cheese", "Hard cheese", 400, 1, 1.05, 7, 2, "nothing", "basic", 250),
    ("sausage", "Dried sausage", 450, 1.1, 1.2, 30, 10, "nothing", "basic", 200),
    ("bread", "Bread", 250, 4.5, 4.5, 3, 3, "nothing", "basic", 500),
    ("flat-bread", "Flat bread", 310, 1.6, 1.8, 10, 6, "nothing", "full", 320),
    ("tinned-fish", "Tinned fish", 190, 1.3, 1.3, 1000, 1000, "nothing", "basic", 120),
    ("chocolate", "Chocolate", 540, 0.9, 0.95, 200, 1, "nothing", "snacks", 100),
    ("dried-fruit", "Dried fruit", 280, 1.4, 1.5, 120, 120, "nothing", "basic", 250),
    ("honey", "Honey", 310, 0.75, 0.9, 1000, 1000, "nothing", "basic", 500),
    ("oil", "Oil", 880, 1.1, 1.2, 200, 200, "cooking", "basic", 500),
    ("fruit", "Fresh fruit", 60, 1.5, 1.6, 3, 2, "nothing", "basic", 1000),
    ("bars", "Nut and date bars", 420, 2, 2, 200, 100, "nothing", "snacks", 45),
    ("biscuits", "Biscuits", 450, 2.4, 3, 120, 120, "nothing", "snacks", 200),
)
_FIELDS = (
    "id", "name", "kcal_per_100g", "l_per_kg", "sold_l_per_kg", "keeps_days", "keeps_hot_days", "needs", "sold_at", "pack_g",
)  # fmt: skip

FOODS: dict[str, Food] = {row[0]: Food.model_validate(dict(zip(_FIELDS, row, strict=True))) for row in _ROWS}
"""By identifier."""
