"""The questions a rider asks before leaving, and the kinds of trouble that answer each."""

from omnifer.core.model.finding import Question

QUESTIONS: tuple[Question, ...] = (
    Question(
        id="warm", words="Warm enough at night?",
        kinds=["cold_sleep", "warm_surplus", "cold_night", "no_shelter", "idle_shelter", "no_bed"],
    ),
    Question(id="dressed", words="Dressed for the day?", kinds=["frostbite", "thin_layers", "cold_evening"]),
    Question(id="clean", words="Clean and dry?", kinds=["no_clean", "wet_runs"]),
    Question(id="mended", words="Can you mend it?", kinds=["cannot_mend", "mismatch"]),
    Question(id="seen", words="Will you be seen?", kinds=["not_seen", "dark_day"]),
    Question(
        id="safe", words="Healthy and safe?",
        kinds=["not_safe", "hot_day", "climbs_fast", "sleeps_high", "pass_shut", "may_go_home"],
    ),
    Question(id="complete", words="What did you forget?", kinds=["incomplete", "untried", "worn_out", "to_get", "hangs_on_one"]),
    Question(id="spared", words="What may stay?", kinds=["twice", "not_asked", "big_thing"]),
    Question(
        id="supplied", words="Enough on board?",
        kinds=["water_gap", "fuel_gap", "runs_out", "no_room_for_food", "long_way", "snacks_deep", "shop_shut", "untreated",
               "filter_frost", "gas_frost", "bottles_freeze", "one_fire", "wrong_fuel", "step_lost", "device_dies",
               "single_point", "no_plug", "panel_idle"],
    ),
    Question(
        id="packed", words="Does it ride well?",
        kinds=["over_mass", "over_volume", "over_support", "over_wheel", "over_system", "hitch_load", "front_lifts", "no_fit",
               "tyre_pressure", "pressed", "sides", "front_share", "improvised", "on_shelf", "not_dry", "falls_out",
               "left_behind", "too_deep", "too_long", "not_together", "guesses", "too_few_days", "long_day", "walking",
               "too_wide", "no_slack", "days_left", "childs_load", "soft_ground",
               "near_limit"],
    ),
)  # fmt: skip
"""Every kind of trouble stands under one of them."""


def open_questions(said: dict[str, bool]) -> list[Question]:
    """The questions; open are those to which nobody said anything. Raises KeyError where one is forgotten."""
    return [q.model_copy(update={"open": not said[q.id]}) for q in QUESTIONS]
