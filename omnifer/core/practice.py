"""Defaults of road and needs: one table, each with its unit and source. "practice" means common practice, no source."""

RIDER_HEIGHT_CM = 172.0
"""Where a rider's height is not known [cm]; practice."""
RIDER_AGE_YEARS = 40
"""Where a rider's age is not known [years]; practice."""
GROSS_EFFICIENCY = 0.22
"""Work over food energy while riding [-]; exercise physiology, range 0.18 to 0.25."""
OFF_BIKE_FACTOR = 1.4
"""Energy off the bicycle over resting energy [-]; practice, 1.3 to 1.5."""
FOOD_KCAL_PER_G = 3.8
"""Energy of bought food as carried [kcal/g]; oats, pasta, rice, bread, cheese and nuts mixed, food tables."""
FOOD_L_PER_KG = 1.9
"""Packed volume of bought food [l/kg]; practice."""
FOOD_RESERVE_DAYS = 0.5
"""Food still on board on reaching the next shop [rider days]; practice."""
BASIC_SHOP_DAYS = 2.0
"""What a basic shop sells [days for every rider]; practice."""
BOTTLE_FLOOR_L_PER_H = 0.35
"""Least water carried for each riding hour and rider [l/h]; cool-weather floor beside ISO 7933."""
DRUNK_FLOOR_L_PER_H = 0.25
"""Least water drunk for each riding hour and rider [l/h]; practice."""
CARRY_FACTOR = 1.5
"""Water carried over expected loss [-]; ISO 7933:2004, 95 % of people against the median."""
DRY_CAMP_L = 3.0
"""Water for an evening, a night and a morning away from a source [l per rider]; practice, 3 to 4."""
RIDING_HEAT_SHARE = 0.75
"""Where the riding day lies between its low and its high [-]; practice."""
NIGHT_NEAR_STOP_KM = 3.0
"""A night this close to a stop is spent at the stop [km]; practice."""
SNAP_TO_STOP_KM = 1.5
"""A night put this close to a stop is set at the stop [km]; practice."""
MORNING_WAIT_H = 1.0
"""How long a rider waits for a shop to open [h]; practice."""
DESCENT_CAP_KMH = 38.0
"""Fastest a laden bicycle is let run downhill [km/h]; practice."""
DESCENT_GRADIENT = 0.03
"""Steeper than this downhill is a descent that chills [-]; practice."""
DESCENT_CELLS = 40
"""A descent worth dressing for: a kilometre of cells of 25 m; practice."""
MORNING_SHARE = 0.3
"""Where a cold morning lies between the cold night and the mean maximum [-]; practice."""
HOT_INDEX_C = 39.0
"""Heat index from which riding at noon is unwise [°C]; NWS calls 39.4 (103 °F) and more danger, from memory."""
DRAG_AREA_M2, ROLLING_RESISTANCE = 0.55, 0.009
"""Of a rider who has no bike yet [m², -]; practice, a laden touring bike on asphalt."""
WALKING_KMH = 4.0
"""Slower than this the rider walks the bicycle at this speed [km/h]; practice, balance ends at 4 to 5."""
SLOWEST_CADENCE_RPM = 50.0
"""Turned slower than this in the lowest gear, the rider gets off and walks [1/min]; practice."""
DRIVETRAIN_EFFICIENCY = 0.95
"""Power at the rear wheel over power at the crank [-]; practice, 0.93 to 0.97."""
ASCENT_THRESHOLD_M = 4.0
"""Smallest reversal that counts as climb, after a 100 m moving mean, where no tour says otherwise [m]; practice, 3 to 5."""
DEFAULT_DAY_HIGH_C, DEFAULT_NIGHT_LOW_C, DEFAULT_HUMIDITY_PCT = 26.0, 10.0, 50.0
"""Weather where none is known [°C, °C, %]; practice, a mild season."""
PUSHED_UP = 0.15
"""A bike pushed up a slope of this must keep its front wheel down [-]; practice."""
USUAL_STORES_KG = 3.5
"""Water and food of a rider with which days are cut, whatever the stretch asks for [kg]; practice: two bottles, two days."""
ROUNDING = 0.005
"""What differs by no more than this is rounding, not a difference [kg, l]."""
