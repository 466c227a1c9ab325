"""Where the mass of a seated rider is."""

import math

LENGTHS = {"trunk": 0.288, "upper_arm": 0.186, "forearm": 0.146, "thigh": 0.245, "shank": 0.246, "head": 0.11}
"""Hip to shoulder, and the limbs, over stature; head from the shoulder to its centre; Drillis and Contini 1966, from memory."""
MASSES = {
    "head": 0.0694, "trunk": 0.4346, "upper_arms": 0.0542, "forearms": 0.0324, "hands": 0.0122, "thigh": 0.1416,
    "shank": 0.0433, "foot": 0.0137,
}  # fmt: skip
"""Over body mass; of arms both, of legs one."""
CENTRES = {"trunk": 0.55, "upper_arms": 0.577, "forearms": 0.457, "thigh": 0.41, "shank": 0.446}
"""Centre of each segment from its end nearer the hip or shoulder, over its length."""
HEAD_DEG = 65.0
"""The neck holds the head up, so far from the horizontal [°]; practice."""
HIP_BACK_MM, HIP_UP_MM = 25.0, 90.0
"""Hip joint behind and above the middle of the saddle [mm]; practice."""
ANKLE_BACK_MM, ANKLE_UP_MM, FOOT_BACK_MM = 100.0, 100.0, 40.0
"""Ankle and centre of the foot from the pedal's axle [mm]; practice."""

Point = tuple[float, float]


def seated_centre(
    height_mm: float, lean_deg: float, hands: Point, bottom_bracket: Point, saddle: Point, crank_mm: float
) -> Point:
    """Centre of gravity of a rider with level cranks, forwards and up in the axes of the points [mm, mm].

    Parameters
    ----------
    height_mm : float
        Stature [mm].
    lean_deg : float
        Hip to shoulder, above the horizontal [°].
    hands, bottom_bracket, saddle : (float, float)
        Forwards and up [mm].
    crank_mm : float
        [mm]

    References
    ----------
    De Leva (1996), Adjustments to Zatsiorsky-Seluyanov's segment inertia parameters, J. Biomech. 29:1223-1230,
    doi:10.1016/0021-9290(95)00178-6, men; masses and centres from memory. Good to some 3 cm.
    """
    size = {name: share * height_mm for name, share in LENGTHS.items()}
    hip = (saddle[0] - HIP_BACK_MM, saddle[1] + HIP_UP_MM)
    shoulder = _along(hip, lean_deg, size["trunk"])
    elbow = _joint(shoulder, hands, size["upper_arm"], size["forearm"], -1)
    parts = [
        (MASSES["head"], _along(shoulder, HEAD_DEG, size["head"])),
        (MASSES["trunk"], _between(hip, shoulder, CENTRES["trunk"])),
        (MASSES["upper_arms"], _between(shoulder, elbow, CENTRES["upper_arms"])),
        (MASSES["forearms"], _between(elbow, hands, CENTRES["forearms"])),
        (MASSES["hands"], hands),
    ]
    for side in (1, -1):
        pedal = (bottom_bracket[0] + side * crank_mm, bottom_bracket[1])
        ankle = (pedal[0] - ANKLE_BACK_MM, pedal[1] + ANKLE_UP_MM)
        knee = _joint(hip, ankle, size["thigh"], size["shank"], 1)
        parts += [
            (MASSES["thigh"], _between(hip, knee, CENTRES["thigh"])),
            (MASSES["shank"], _between(knee, ankle, CENTRES["shank"])),
            (MASSES["foot"], (pedal[0] - FOOT_BACK_MM, (pedal[1] + ankle[1]) / 2)),
        ]
    whole = sum(mass for mass, _ in parts)
    return sum(m * at[0] for m, at in parts) / whole, sum(m * at[1] for m, at in parts) / whole


def _along(start: Point, angle_deg: float, length: float) -> Point:
    angle = math.radians(angle_deg)
    return start[0] + length * math.cos(angle), start[1] + length * math.sin(angle)


def _between(a: Point, b: Point, share: float) -> Point:
    return a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])


def _joint(a: Point, b: Point, first: float, second: float, side: int) -> Point:
    """The joint of two bones that reach from a to b, stretched where they are too short, on one side of the line."""
    apart = min(math.dist(a, b), first + second)
    bent = math.acos(max(-1.0, min(1.0, (first**2 + apart**2 - second**2) / (2 * first * apart))))
    return _along(a, math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]) + side * bent), first)
