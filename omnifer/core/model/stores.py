"""How a tour eats, cooks and shops: what its rider decides of the supplies."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import DistanceKm, Id, Name, Noun, OneLine

Cooking = Literal["cook", "boil", "none"]
Meal = Literal["breakfast", "riding", "evening"]
MEALS: tuple[Meal, ...] = ("breakfast", "riding", "evening")
Needs = Literal["nothing", "boiling", "cooking"]
SoldAt = Literal["snacks", "basic", "full"]


class Food(Noun):
    """One kind of food as it is bought, carried and eaten."""

    id: Id
    name: Name
    kcal_per_100g: Annotated[float, Field(gt=0, le=900)]
    l_per_kg: Annotated[float, Field(gt=0, le=30, description="Decanted [l/kg]")]
    sold_l_per_kg: Annotated[float, Field(gt=0, le=30, description="As it is sold [l/kg]")]
    keeps_days: Annotated[int, Field(ge=1, le=1000)] = 1000
    keeps_hot_days: Annotated[int, Field(ge=1, le=1000)] = Field(1000, description="On days above the heat that melts chocolate")
    needs: Needs = "nothing"
    sold_at: SoldAt = Field("basic", description="Smallest shop that sells it")
    pack_g: Annotated[float, Field(gt=0, le=20_000)] = Field(500, description="As it is sold [g]")
    price_per_kg: Annotated[float, Field(ge=0, le=10_000)] | None = Field(None, description="In the tour's money")


class Serving(Noun):
    """A part of a meal's energy that comes from one food."""

    meal: Meal
    food_id: Id
    share: Annotated[float, Field(gt=0, le=1)]


class StoreStep(Noun):
    """What the rider fixed at one place: exactly so much is taken there; 0: nothing."""

    supply: Annotated[str, Field(max_length=40, description="water, food, fuel, or the identifier of what is used up"), OneLine]
    stop_id: Id | None = Field(None, description="None: the start")
    amount: Annotated[float, Field(ge=0, le=10_000, description="In the unit of the supply")]


class Found(Noun):
    """What was on board at a place of the road, whatever was planned: from there on it counts."""

    supply: Annotated[str, Field(max_length=40, description="water, food, fuel, or the identifier of what is used up"), OneLine]
    at_km: DistanceKm
    amount: Annotated[float, Field(ge=0, le=10_000, description="In the unit of the supply")]


class Stores(Noun):
    """What a rider decides of the supplies."""

    cooking: Cooking | None = Field(None, description="None: not said; food is then the usual mix and nothing is boiled")
    eat_out: bool = Field(False, description="Evenings are eaten out where the night's stop serves meals")
    meal_price: Annotated[float, Field(ge=0, le=100_000)] | None = Field(None, description="An evening meal for one, bought")
    washes: bool = Field(True, description="Washes at dry camps")
    wash_every_days: Annotated[int, Field(ge=1, le=60)] | None = Field(
        None, description="Clothes are washed by hand every so many days; None: at laundries where one sleeps only"
    )
    own_foods: tuple[Food, ...] = Field((), max_length=200, description="Added to the table, or in place of one of it")
    menu: tuple[Serving, ...] = Field((), max_length=60, description="None given: the usual menu of the way of cooking")
    minutes_per_money: Annotated[float, Field(ge=0, le=10_000)] = Field(
        0, description="Minutes of riding that one unit of money is worth to the party; 0: money decides only between equals"
    )
    parcel_price: Annotated[float, Field(ge=0, le=10_000)] | None = Field(None, description="Of one parcel, in the tour's money")
    post_days: Annotated[int, Field(ge=1, le=90)] = Field(7, description="A parcel is on its way")
    holding_days: Annotated[int, Field(ge=1, le=90)] = Field(14, description="A post office keeps it")
    steps: tuple[StoreStep, ...] = Field((), max_length=5000)
    found: tuple[Found, ...] = Field((), max_length=300)
