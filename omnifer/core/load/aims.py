"""What a good load aims at, in points: one table, so that every weight can be seen and argued with.

All weights are practice: they put the rules of thumb of touring riders on one scale. One point is about the
annoyance of one kilogram carried 10 cm too high.
"""

OUT_THING = 400
"""A thing left out [points each]."""
OUT_KG = 100
"""Besides, for each kilogram left out [points/kg]."""
DEEP_STEP = {1: 14, 2: 40, 3: 70, 4: 70}
"""A thing found later than it is wanted, by moments too late [points]."""
HIGH = 10
"""Mass above the ground [points/(kg m)]."""
FAR = 6
"""Mass away from the middle of the wheelbase [points/(kg m)]."""
KIT_SPLIT = 18
"""Each bag more that a kit is spread over [points]."""
RARE_ON_TOP = 2
"""A thing that is rarely needed in a bag reached while riding: it takes the room of what is [points/l]."""
SIDES = 30
"""Left against right beyond the tolerance, at each axle [points/kg]."""
SIDES_TOLERANCE_KG = 0.5
FRONT = 20
"""Front wheel's load outside its steady range [points/kg]."""
SWAY = 12
"""Mass in a saddle pack beyond the sway limit [points/kg]."""
SWAY_LIMIT_KG = 3.0
RIDERS = 8
"""A bike's luggage away from its rider's part by power, beyond the tolerance [points/kg]."""
RIDERS_TOLERANCE_KG = 2.0
ROOM = 15
"""Litres missing of the room kept for shopping [points/l]."""
ROOM_L = 6.0
"""Room kept besides the planned food: a third of one pannier [l]."""
WORST_TIMES = 2
"""The worst moment counts this often more, besides the sum over the moments that govern."""
