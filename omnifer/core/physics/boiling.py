"""Water brought to the boil, and what burns under it."""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from omnifer.core.physics.air import standard_pressure

WATER_KJ_PER_L_K = 4.186
"""Heat capacity of a litre of water, mean from 5 to 100 °C [kJ/(l K)]; IAPWS-95 by CoolProp gives 4.18 to 4.19."""
MELTING_KJ_PER_KG = 333.4
"""Latent heat of ice; IAPWS-06 gives 333.46 [kJ/kg]."""
ICE_KJ_PER_KG_K = 2.06
"""Heat capacity of ice between -10 and 0 °C; IAPWS-06 [kJ/(kg K)]."""


TWICE_IN_K = 10.0
"""Food cooks twice as long in water that is so much cooler [K]; from memory."""


def boiling_point(altitude_m: ArrayLike) -> NDArray[np.float64]:
    """Temperature at which water boils at the standard pressure of an altitude [°C]; within 0.1 K up to 5500 m.

    Parameters
    ----------
    altitude_m : array_like
        Geopotential altitude [m].

    References
    ----------
    Antoine equation of water for 1 to 100 °C (A 8.07131, B 1730.63, C 233.426; pressure in mmHg); from memory, checked
    against IAPWS-95.
    """
    mmhg = np.asarray(standard_pressure(altitude_m)) / 133.322
    return np.asarray(1730.63 / (8.07131 - np.log10(mmhg)) - 233.426)


def heat_to_boil(litres: ArrayLike, from_c: ArrayLike, altitude_m: ArrayLike) -> NDArray[np.float64]:
    """Heat that brings water to the boil [kJ].

    Parameters
    ----------
    litres : array_like
        [l]
    from_c : array_like
        What it is before, 0 or more [°C].
    altitude_m : array_like
        [m]

    References
    ----------
    Energy balance; heat capacity from IAPWS-95.
    """
    return np.asarray(np.asarray(litres) * WATER_KJ_PER_L_K * (boiling_point(altitude_m) - np.asarray(from_c)))


def heat_to_melt(litres: ArrayLike, snow_c: ArrayLike, to_c: ArrayLike) -> NDArray[np.float64]:
    """Heat that makes water of a temperature out of snow [kJ].

    Parameters
    ----------
    litres : array_like
        Of water in the end [l, kg].
    snow_c, to_c : array_like
        The snow before, 0 or less, and the water after [°C].

    References
    ----------
    Energy balance; ice by IAPWS-06.
    """
    warmed = ICE_KJ_PER_KG_K * np.maximum(-np.asarray(snow_c), 0) + WATER_KJ_PER_L_K * np.asarray(to_c)
    return np.asarray(np.asarray(litres) * (warmed + MELTING_KJ_PER_KG))


def cooks_longer(altitude_m: ArrayLike) -> NDArray[np.float64]:
    """How many times as long food cooks at an altitude as at the sea [-]: twice as long for every 10 K that water boils cooler.

    References
    ----------
    A rate that doubles in ten kelvin (Q10 of 2) is usual for the cooking of starch and vegetables; from memory.
    """
    return np.asarray(2 ** ((boiling_point(0.0) - boiling_point(altitude_m)) / TWICE_IN_K))


def fuel_mass(heat_kj: ArrayLike, efficiency: ArrayLike, heating_value_mj_per_kg: float) -> NDArray[np.float64]:
    """Fuel burnt to bring heat into a pot [kg].

    Parameters
    ----------
    heat_kj : array_like
        Heat in the pot [kJ].
    efficiency : array_like
        Heat in the pot over heat of the fuel [-].
    heating_value_mj_per_kg : float
        Lower heating value, its water leaving as steam [MJ/kg].

    References
    ----------
    Definition of the lower heating value.
    """
    return np.asarray(np.asarray(heat_kj) / np.asarray(efficiency) / heating_value_mj_per_kg / 1000)
