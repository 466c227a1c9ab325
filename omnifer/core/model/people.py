"""The riders."""

from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import Id, Name, Noun


class Rider(Noun):
    """A person on the tour. What is left open takes a named default (`core/model/practice.py`)."""

    id: Id
    name: Name
    body_mass_kg: Annotated[float, Field(gt=20, le=250, description="Body mass, dressed to ride [kg]")]
    all_day_power_w: Annotated[float, Field(ge=30, le=400, description="Power held all day at the crank [W]")]
    height_cm: Annotated[float, Field(ge=100, le=250)] | None = None
    age_years: Annotated[int, Field(ge=5, le=110)] | None = None
    sleeps: Literal["cold", "usual", "warm"] = Field("usual", description="Beside others under the same cover")
    mends: Literal["little", "roadside", "workshop"] = Field(
        "roadside", description="little: tubes and bolts; roadside: chain, cables, pads besides; workshop: spokes and hoses too"
    )
    cold_hands: bool = Field(False, description="Hands and feet get cold sooner than others'")
    weak_eyes: bool = Field(False, description="Sees little without glasses or lenses")
    sex: Literal["female", "male"] | None = Field(None, description="As the resting-energy equation asks for it")
