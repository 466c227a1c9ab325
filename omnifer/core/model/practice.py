"""The defaults of the job: one field each with its unit, usual range and source, and the rider's to overwrite.

"practice" means common practice, no source. What decides how screens look or what counts as rounding is no default and
stands where it is used.
"""

from typing import Any

from pydantic.fields import FieldInfo

from omnifer.core.model.chances import Chances
from omnifer.core.model.usual import usual

LEARNED = "practice; learned from tours ridden"


class Practice(Chances):
    """Every default, with those of chance.

    A unit that is the name of a quantity is shown in the reader's own units; any other stands as it is.
    """

    ramp_times: float = usual(1.5, 1.2, 2.0, "times", "Power on a ramp over all-day power, rested from afterwards", least=1)
    slowest_cadence_rpm: float = usual(40, 35, 55, "1/min", "Slowest turn of the cranks on a ramp")
    walking_kmh: float = usual(4.0, 3.0, 5.0, "speed", "Walking beside the bike where power allows")
    drivetrain_efficiency: float = usual(0.95, 0.93, 0.97, "share", "Power at the rear wheel over that at the crank", most=1)
    descent_cap_kmh: float = usual(38, 30, 50, "speed", "Fastest downhill, laden")
    rough_asphalt_times: float = usual(1.4, 1.2, 1.7, "times", "Rolling resistance of rough asphalt over smooth")
    gravel_times: float = usual(2.0, 1.5, 2.8, "times", "Rolling resistance of gravel over smooth asphalt")
    soft_times: float = usual(4.0, 3.0, 7.0, "times", "Rolling resistance of sand and mud over smooth asphalt")
    rough_asphalt_cap: float = usual(0.85, 0.75, 0.95, "share", "Fastest downhill on rough asphalt, of that on smooth", most=1)
    gravel_cap: float = usual(0.65, 0.5, 0.8, "share", "Fastest downhill on gravel, of that on smooth asphalt")
    soft_cap: float = usual(0.5, 0.3, 0.6, "share", "Fastest downhill on sand and mud, of that on smooth asphalt")
    wind_at_rider: float = usual(
        0.654, 0.589, 0.743, "share", "Wind at the rider over wind at 10 m", "power law; exponent 0.14 to 0.25"
    )  # fmt: skip
    drag_area_m2: float = usual(0.55, 0.45, 0.75, "m²", "Drag area of a rider who has no bike yet")
    rolling_resistance: float = usual(0.009, 0.005, 0.014, "", "Rolling resistance of a rider who has no bike yet")
    usual_stores_kg: float = usual(3.5, 2.0, 6.0, "mass", "Water and food of a rider with which days are cut")
    detour_km: float = usual(1.0, 0.5, 5.0, "distance", "A stop at most so far off the road counts, with the way to it", least=0)
    night_near_stop_km: float = usual(3.0, 1.0, 5.0, "distance", "A night this close to a stop is spent there")
    morning_wait_h: float = usual(1.0, 0.5, 2.0, "hours", "How long one waits for a shop to open")
    gross_efficiency: float = usual(
        0.22, 0.18, 0.25, "share", "Work over the food energy of riding", "exercise physiology, from memory"
    )
    off_bike_factor: float = usual(1.4, 1.3, 1.5, "times", "Energy off the bike over resting energy")
    food_kcal_per_g: float = usual(
        3.8, 3.2, 4.6, "kcal/g", "Energy of bought food as carried", "food tables, oats to nuts mixed, from memory"
    )
    food_l_per_kg: float = usual(1.9, 1.5, 2.5, "l/kg", "Packed volume of bought food")
    food_reserve_days: float = usual(0.5, 0.25, 1.0, "days", "Food left on reaching the next shop", least=0)
    least_shop_days: float = usual(1.0, 0.5, 2.0, "days", "Nobody goes shopping for less food than this", least=0)
    basic_shop_days: float = usual(2.0, 1.0, 3.0, "days", "What a basic shop sells, for every rider")
    rider_height_cm: float = usual(172, 155, 190, "cm", "Height of a rider who does not say it")
    rider_age_years: float = usual(40, 25, 60, "years", "Age of a rider who does not say it")
    bottle_floor_l_per_h: float = usual(0.35, 0.25, 0.5, "l/h", "Least water carried for each riding hour and rider")
    drunk_floor_l_per_h: float = usual(0.25, 0.15, 0.35, "l/h", "Least water drunk for each riding hour and rider")
    carry_factor: float = usual(
        1.5, 1.25, 2.0, "times", "Water carried over the expected loss",
        "our reading of ISO 7933:2004: its limits of loss are 7.5 % of body mass for most, 5 for 95 %; from memory",
    )  # fmt: skip
    dry_camp_l: float = usual(3.0, 2.0, 4.0, "volume", "Water of a rider for an evening, night and morning away from a source")
    dry_day_l: float = usual(3.0, 2.0, 5.0, "volume", "Water of a rider for the daytime of a rest day away from a source")
    camp_cooking_l: float = usual(
        1.0, 0.5, 1.5, "volume", "Of the water of a dry camp, what cooking takes; boiling only, half of it"
    )
    camp_washing_l: float = usual(0.5, 0.2, 1.0, "volume", "Of the water of a dry camp, what washing takes", least=0)
    seasonal_reserve: float = usual(
        0.25, 0.1, 0.5, "share", "More water for riding where the next source is a seasonal one", least=0
    )  # fmt: skip
    press_min_per_l: float = usual(4.8, 4.0, 5.5, "min/l", "Pressing water through a filter bottle by hand")
    pump_min_per_l: float = usual(2.5, 2.0, 3.0, "min/l", "Pumping or squeezing water through a filter by hand")
    gravity_min_per_l: float = usual(1.0, 0.5, 1.5, "min/l", "Hanging up a gravity filter and taking it down")
    gravity_wait_min: float = usual(12, 10, 15, "min", "What a gravity filter then takes by itself")
    tablet_min_per_l: float = usual(0.5, 0.3, 1.0, "min/l", "Treating water with tablets")
    tablet_wait_min: float = usual(30, 20, 240, "min", "How long tablets act; against hardy parasites and in the cold for hours")
    boiling_min_per_l: float = usual(1.5, 1.0, 3.0, "min/l", "Watching over water that boils to be safe to drink")
    breakfast_share: float = usual(0.25, 0.15, 0.3, "share", "Part of a day's energy eaten before riding", most=0.5)
    evening_share: float = usual(0.35, 0.3, 0.45, "share", "Part of a day's energy eaten in the evening", most=0.5)
    food_hot_c: float = usual(28, 26, 32, "temperature", "Days hotter than this melt chocolate and spoil cheese")
    waste_per_food: float = usual(0.04, 0.02, 0.08, "share", "Wrappings and peel left of bought food, by mass", least=0)
    boiled_cook_l: float = usual(2.1, 2.0, 3.0, "volume", "Water boiled a day for a rider who cooks")
    boiled_only_l: float = usual(1.25, 1.0, 1.5, "volume", "Water boiled a day for a rider who only boils")
    boiled_evening: float = usual(0.6, 0.5, 0.7, "share", "Part of it that is boiled in the evening", most=1)
    coldest_water_c: float = usual(4, 1, 10, "temperature", "No source is colder than this", least=0)
    snow_c: float = usual(-5, -15, 0, "temperature", "Snow that is melted", most=0)
    melt_min_per_l: float = usual(7, 5, 10, "min/l", "Melting snow in a pot, watched, for a litre of water")
    simmer_min: float = usual(8, 5, 15, "min", "Simmering an evening's pot at the sea; longer where water boils cooler")
    simmer_kw: float = usual(0.5, 0.3, 0.8, "kW", "Flame under a pot that simmers")
    gas_efficiency: float = usual(0.55, 0.5, 0.6, "share", "Heat in the pot over heat of the gas, behind a shield", most=1)
    petrol_efficiency: float = usual(0.48, 0.4, 0.55, "share", "Heat in the pot over heat of petrol, behind a shield", most=1)
    alcohol_efficiency: float = usual(0.42, 0.35, 0.5, "share", "Heat in the pot over heat of alcohol, behind a shield", most=1)
    exchanger_gain: float = usual(1.2, 1.15, 1.3, "times", "Efficiency of a pot with a heat exchanger over that of a plain one")
    wind_shielded: float = usual(
        0.06, 0.03, 0.1, "s/m", "More fuel for each metre a second of wind at the pot behind a shield", least=0
    )
    wind_open: float = usual(0.3, 0.2, 0.4, "s/m", "The same without a shield")
    fuel_reserve_days: float = usual(2.0, 1.0, 3.0, "days", "Fuel left on reaching the next place that sells it", least=0)
    gas_frost_c: float = usual(-5, -8, 0, "temperature", "Below this gas from an upright canister fails")
    filter_frost_c: float = usual(0, -1, 2, "temperature", "Below this a wet filter is destroyed unless it sleeps with its rider")
    bottle_frost_c: float = usual(-5, -8, -2, "temperature", "Below this bottles freeze shut overnight")
    bank_usable: float = usual(0.85, 0.8, 0.9, "share", "Of a bank's label, what comes out of it", most=1)
    charging: float = usual(0.85, 0.8, 0.9, "share", "Of what goes into a device, what its battery keeps", most=1)
    plug_stop_h: float = usual(1.0, 0.5, 2.0, "hours", "At a plug that is only passed")
    hub_slowest_kmh: float = usual(11, 10, 12, "speed", "Slower than this a hub dynamo charges nothing")
    hub_converter: float = usual(0.7, 0.6, 0.8, "share", "Of a hub dynamo's rated output, what charges", most=1)
    panel_riding: float = usual(0.3, 0.25, 0.4, "share", "Yield of a panel that lies flat on the load in part shade", most=1)
    panel_resting: float = usual(0.6, 0.55, 0.65, "share", "Yield of a panel that is turned to the sun on a rest day", most=1)
    panel_cloudy: float = usual(0.3, 0.2, 0.4, "share", "Of a clear day's sun on a cloudy one", most=1)
    cloudy_per_rain: float = usual(1.8, 1.3, 2.5, "times", "Cloudy days over rainy ones")
    cold_battery: float = usual(0.8, 0.6, 0.9, "share", "Of a battery's charge at night below freezing, what it gives", most=1)
    power_reserve_days: float = usual(1.0, 0.5, 2.0, "days", "Electricity left on reaching the next plug", least=0)
    default_day_high_c: float = usual(26, 18, 34, "temperature", "Hot day where no weather is known")
    default_night_low_c: float = usual(10, 0, 18, "temperature", "Cold night where no weather is known")
    default_humidity_pct: float = usual(50, 30, 80, "%", "Relative humidity where none is known", most=100)
    sleeper_shift_k: float = usual(4.0, 2.0, 6.0, "K", "Who sleeps cold wants so much more than the label, who sleeps warm less")
    hot_index_c: float = usual(
        39, 35, 41, "temperature", "Heat index from which riding at noon is unwise", "NWS: danger from 39.4, from memory"
    )  # fmt: skip
    descent_gradient: float = usual(0.03, 0.02, 0.05, "grade", "Steeper than this downhill chills")
    descent_km: float = usual(1.0, 0.5, 3.0, "distance", "A descent worth dressing for is so long")
    fill_height: float = usual(0.45, 0.4, 0.55, "share", "Where the centre of a bag's contents lies in its height", most=1)
    pushed_up: float = usual(0.15, 0.1, 0.2, "grade", "A bike pushed up this slope must keep its front wheel down")
    ozone_du: float = usual(300, 250, 380, "DU", "Ozone overhead: less in the tropics, more at high latitudes in spring",
                            "our mean of its climatology, from memory")  # fmt: skip
    uv_per_km: float = usual(0.1, 0.06, 0.12, "share", "More UV for each kilometre of height", "WHO 2002, from memory")
    uv_protects: float = usual(6, 3, 8, "", "UV index from which skin is kept covered or creamed",
                               "WHO 2002: from 3, from 8 twice as careful; from memory")  # fmt: skip
    cold_hands_k: float = usual(4, 2, 8, "K", "Whose hands and feet get cold dresses them as if it were so much colder")
    seat_hours: float = usual(5, 3, 7, "hours", "From so long a day in the saddle skin wants care")
    sweat_l: float = usual(5, 4, 8, "volume", "From so much water a day a rider wants salts with it")
    puncture_per_1000_km: float = usual(1.11, 0.4, 2.5, "per 1,000 km", "Punctures of a bike of usual tyres")
    tubeless_per_1000_km: float = usual(0.4, 0.15, 1.0, "per 1,000 km", "Tubeless leaks that ask for a hand")
    trailer_tube_per_1000_km: float = usual(1.11, 0.4, 2.5, "per 1,000 km", "Punctures of a trailer")
    valve_per_1000_km: float = usual(0.05, 0.02, 0.15, "per 1,000 km", "Valves that fail")
    cut_tyre_per_1000_km: float = usual(0.08, 0.03, 0.2, "per 1,000 km", "Tyres cut open")
    spoke_per_1000_km: float = usual(0.15, 0.05, 0.5, "per 1,000 km", "Spokes broken")
    sprocket_spoke_per_1000_km: float = usual(0.1, 0.03, 0.3, "per 1,000 km", "Spokes broken beside the sprockets")
    chain_per_1000_km: float = usual(0.15, 0.05, 0.3, "per 1,000 km", "Chains broken")
    hanger_per_1000_km: float = usual(0.03, 0.01, 0.1, "per 1,000 km", "Hangers bent or broken")
    cable_per_1000_km: float = usual(0.1, 0.05, 0.25, "per 1,000 km", "Cables of gears or brakes broken")
    pads_per_1000_km: float = usual(0.5, 0.25, 1.5, "per 1,000 km", "Pairs of brake pads worn down")
    rear_tyre_km: float = usual(5000, 3000, 9000, "distance", "A rear tyre under a usual load lasts so far")
    front_tyre_km: float = usual(8000, 5000, 14000, "distance", "A front tyre under a usual load lasts so far")
    chain_km: float = usual(4000, 2500, 6000, "distance", "A chain in dry grit lasts so far")
    sprockets_km: float = usual(10000, 6000, 16000, "distance", "Sprockets last so far, if the chain is changed in time")
    cables_km: float = usual(8000, 4000, 15000, "distance", "Cables and their housings run freely so far")
    bearings_km: float = usual(12000, 6000, 25000, "distance", "Hubs and bottom bracket run so far without being opened")
    bar_tape_km: float = usual(10000, 5000, 20000, "distance", "Bar tape or grips last so far")
    saddle_break_in_km: float = usual(400, 200, 1000, "distance", "A saddle fits its rider after so far, or never")
    oil_wet_km: float = usual(300, 200, 450, "distance", "Wet oil on a chain lasts so far")
    oil_dry_km: float = usual(180, 120, 250, "distance", "Dry oil on a chain lasts so far, in rain a quarter of it")
    oil_wax_km: float = usual(350, 250, 500, "distance", "Wax on a chain lasts so far, in rain a third of it")
    spokes_look_km: float = usual(1000, 500, 2000, "distance", "Spokes are felt for loose ones so often")
    look_days: float = usual(7, 4, 14, "days", "Bolts, straps and the pressure of tyres are looked at so often", least=1)
    bolt_per_1000_km: float = usual(0.1, 0.05, 0.3, "per 1,000 km", "Bolts of racks and cages lost")
    loose_per_1000_km: float = usual(0.05, 0.02, 0.15, "per 1,000 km", "Headset, crank or pedals that come loose")
    valve_core_per_1000_km: float = usual(0.03, 0.01, 0.1, "per 1,000 km", "Valve cores clogged or bent")
    hose_per_1000_km: float = usual(0.02, 0.005, 0.05, "per 1,000 km", "Brake hoses torn or leaking")
    cleat_per_1000_km: float = usual(0.05, 0.02, 0.15, "per 1,000 km", "Bolts of cleats lost")
    trailer_pin_per_1000_km: float = usual(0.02, 0.01, 0.05, "per 1,000 km", "Pins of a trailer lost")
    rack_per_1000_km: float = usual(0.03, 0.01, 0.1, "per 1,000 km", "Racks bent or broken")
    bag_per_1000_km: float = usual(0.1, 0.05, 0.3, "per 1,000 km", "Zips and straps of bags torn")
    mat_per_1000_km: float = usual(0.08, 0.03, 0.2, "per 1,000 km", "Mats that leak")
    pole_per_1000_km: float = usual(0.05, 0.02, 0.15, "per 1,000 km", "Poles of the tent broken")
    stove_per_1000_km: float = usual(0.05, 0.02, 0.15, "per 1,000 km", "Stoves that fail")
    packing_thing_s: float = usual(8, 5, 12, "s", "Stowing or fetching one thing", "practice, to be tuned")
    packing_roll_s: float = usual(60, 40, 90, "s", "Closing a rolled bag", "practice, to be tuned")
    packing_strap_s: float = usual(90, 60, 120, "s", "Putting on or taking off a strapped bag", "practice, to be tuned")
    cold_hands_times: float = usual(1.5, 1.3, 1.8, "times", "Packing with cold hands over packing with warm ones", least=1)
    packing_times: float = usual(1.0, 0.7, 1.5, "times", "Own minutes of packing over those reckoned", LEARNED)
    water_times: float = usual(1.0, 0.8, 1.3, "times", "Own water while riding over that reckoned", LEARNED)
    food_times: float = usual(1.0, 0.85, 1.2, "times", "Own food over that reckoned", LEARNED)
    fuel_times: float = usual(1.0, 0.8, 1.3, "times", "Own fuel over that reckoned", LEARNED)
    power_times: float = usual(1.0, 0.8, 1.3, "times", "Own electricity over that of the devices", LEARNED)
    puncture_times: float = usual(1.0, 0.5, 2.0, "times", "Own punctures over those usual for the tyre", LEARNED)
    pad_times: float = usual(1.0, 0.6, 1.6, "times", "Own wear of brake pads over the usual", LEARNED)
    sleeps_colder_k: float = usual(
        0.0, -2.0, 2.0, "K", "The party feels nights so much colder than their labels say", LEARNED, least=-10, most=10
    )  # fmt: skip


USUAL = Practice()
"""All defaults as they are."""


def fields() -> dict[str, tuple[FieldInfo, dict[str, Any]]]:
    """Every default by name, those of chance last: its field, and its `low`, `high`, `least`, `most`, `unit` and `source`."""
    found = {}
    own = sorted(Practice.model_fields.items(), key=lambda field: field[0] in Chances.model_fields)
    for name, field in own:
        told = field.json_schema_extra
        assert isinstance(told, dict)
        found[name] = field, dict(told)
    return found
