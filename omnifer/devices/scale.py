"""A scale that is not there: what lies on it, and what it shows of that.

It settles, drifts as it warms, trembles, rounds to its step, and says when it is overloaded. See docs/weighing-scale.md.
"""

import math
import random
from dataclasses import dataclass, field

STEP_KG, MOST_KG = 0.02, 60.0
SETTLES_S = 0.5
"""Time in which what is put on swings out to a third [s]."""
SWING_HZ = 1.1
NOISE_KG = 0.008
"""Standard deviation of its trembling [kg]."""
STILL_S = 3.0
"""It calls itself stable when nothing was put on or taken off for so long [s]."""


def invented(parts_kg: float, key: str) -> float:
    """What something weighs that should weigh so much: riders forget a bottle here, guess too much there [kg].

    The same for the same thing, so that it can be weighed three times.
    """
    chance = random.Random(key)
    return max(parts_kg * (1 + chance.gauss(0, 0.008)) + (0.75 if parts_kg > 10 and chance.random() < 0.5 else 0.0), 0.001)


@dataclass
class Scale:
    """One scale.

    Attributes
    ----------
    drift_kg_per_min : float
        How its zero wanders [kg/min].
    """

    seed: int = 1
    drift_kg_per_min: float = 0.0
    noise_kg: float = NOISE_KG
    load_kg: float = 0.0
    before_kg: float = 0.0
    tare_kg: float = 0.0
    changed_s: float = -1e9
    zeroed_s: float = 0.0
    chance: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self.chance = random.Random(self.seed)

    def put(self, kg: float, now_s: float) -> None:
        """Put something on in place of what lies there [kg]."""
        self.before_kg, self.load_kg, self.changed_s = self.load_kg, kg, now_s

    def zero(self, now_s: float) -> None:
        """Take what lies there now for nothing; drift begins anew."""
        self.tare_kg, self.zeroed_s = self.load_kg, now_s

    def weight(self, now_s: float) -> float:
        """What it weighs now, before it is rounded [kg]."""
        since = max(now_s - self.changed_s, 0.0)
        swing = (self.before_kg - self.load_kg) * math.exp(-since / SETTLES_S) * math.cos(2 * math.pi * SWING_HZ * since)
        drift = self.drift_kg_per_min * (now_s - self.zeroed_s) / 60
        return self.load_kg + swing + drift - self.tare_kg + self.chance.gauss(0, self.noise_kg)

    def line(self, now_s: float, number: int) -> str:
        """What it says now: `W <number> <kg> kg <stable|moving>`, or `O <number>` where too much lies on it."""
        if self.load_kg > MOST_KG:
            return f"O {number}"
        shown = round(self.weight(now_s) / STEP_KG) * STEP_KG
        still = now_s - self.changed_s > STILL_S
        return f"W {number} {shown + 0.0:.2f} kg {'stable' if still else 'moving'}"
