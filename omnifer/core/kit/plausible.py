"""What one thing can weigh and measure: beyond it a figure is asked about, never taken silently. Practice, no source."""

MOST_KG = 15.0
MOST_L = 60.0
KG_PER_L = (0.03, 2.5)
"""From a loosely packed pillow to a lock of steel."""


def too_heavy(mass_kg: float) -> bool:
    """Whether a thing of such a mass is more likely a slip of units."""
    return mass_kg > MOST_KG


def doubt_of(mass_kg: float, volume_l: float) -> str | None:
    """What is odd about measured figures of a thing; None: nothing."""
    if volume_l > MOST_L:
        return f"{volume_l:g} l is more than one thing mostly takes; is it millilitres?"
    if mass_kg > 0 and volume_l > 0 and not KG_PER_L[0] <= mass_kg / volume_l <= KG_PER_L[1]:
        return f"{mass_kg:g} kg in {volume_l:g} l is {mass_kg / volume_l:.2g} kg a litre; is one of them a slip?"
    return None
