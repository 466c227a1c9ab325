"""The questions a rider asks before leaving, and the kinds of trouble that answer each."""

from omnifer.core.model.finding import Question

QUESTIONS: tuple[Question, ...] = (
    Question(id="warm", words="Warm enough at night?", kinds=["cold_sleep", "warm_surplus", "cold_night"]),
    Question(id="clean", words="Clean and dry?", kinds=["no_clean"]),
    Question(
        id="supplied", words="Enough on board?",
        kinds=["water_gap", "fuel_gap", "runs_out", "no_room_for_food", "snacks_deep", "shop_shut", "untreated", "filter_frost",
               "gas_frost", "bottles_freeze", "one_fire", "wrong_fuel", "step_lost"],
    ),
    Question(id="powered", words="Light and power?", kinds=["device_dies", "single_point", "no_plug", "panel_idle"]),
    Question(
        id="ridden", words="Can it be ridden?",
        kinds=["too_few_days", "dark_day", "long_day", "hot_day", "walking", "too_wide"],
    ),
    Question(
        id="holds", words="Does it hold?",
        kinds=["over_mass", "over_volume", "over_support", "over_wheel", "over_system", "hitch_load", "front_lifts", "no_fit",
               "tyre_pressure", "pressed", "sides", "front_share", "improvised"],
    ),
    Question(
        id="packed", words="Packed well?",
        kinds=["on_shelf", "not_dry", "falls_out", "left_behind", "too_deep", "too_long", "not_together", "guesses"],
    ),
)  # fmt: skip
"""Every kind of trouble stands under one of them."""


def open_questions(said: dict[str, bool]) -> list[Question]:
    """The questions; open are those to which nobody said anything."""
    return [q.model_copy(update={"open": not said.get(q.id, True)}) for q in QUESTIONS]
