"""How long films take in this room.

Water leaves a film as fast as the air takes it up: E ∝ p_sat(T)·(1 − RH), with p_sat in hPa after Magnus
(coefficients of Sonntag 1990), against 20 °C and 50 %. The factor t/t_ref = E_ref/E is held within 0.35–6.
"""

from math import exp, log

from ..book.films import Film
from ..figure import tidy

NIGHT = 480.0
"""Minutes: what takes a night takes at least this, however dry the room."""
LEAST_FACTOR, MOST_FACTOR = 0.35, 6.0
COLDEST_C, DAMPEST, DEW_MARGIN_C = 10.0, 0.85, 3.0


def saturation_hpa(temperature_c: float) -> float:
    """Vapour pressure over water, in hPa."""
    return 6.112 * exp(17.62 * temperature_c / (243.12 + temperature_c))


def dew_point_c(temperature_c: float, humidity: float) -> float:
    """Where the air's water would condense, in °C; `humidity` is 0–1, more than 0."""
    x = log(humidity * saturation_hpa(temperature_c) / 6.112)
    return 243.12 * x / (17.62 - x)


def factor(temperature_c: float, humidity: float) -> float:
    """How many times as long as at 20 °C and 50 % a water-borne film takes, within 0.35–6.

    >>> round(factor(28, 0.35), 3), round(factor(12, 0.75), 2), round(factor(16, 0.6), 2)
    (0.476, 3.33, 1.61)
    """
    taken_up = saturation_hpa(temperature_c) * (1 - humidity)
    if taken_up <= 0:
        return MOST_FACTOR
    return min(max(saturation_hpa(20) * 0.5 / taken_up, LEAST_FACTOR), MOST_FACTOR)


def cure_factor(temperature_c: float) -> float:
    """Cure and oils: as said from 18 °C up, doubled for each 10 °C below."""
    return float(2.0 ** (max(0.0, 18 - temperature_c) / 10))


def no_film(temperature_c: float, humidity: float, surface_c: float | None = None) -> str:
    """Why water-based films may not form here; "" when they do. No time is promised where it is not "".

    `surface_c` is the surface's own temperature, the room's when not known.
    """
    surface = temperature_c if surface_c is None else surface_c
    if surface < COLDEST_C or temperature_c < COLDEST_C:
        return f"It is {tidy(min(surface, temperature_c))} °C; below {COLDEST_C:g} °C water-based films may not form."
    if humidity > DAMPEST:
        return f"The air is {humidity:.0%} humid; above {DAMPEST:.0%} water-based films may not dry through."
    dew = dew_point_c(temperature_c, humidity)
    if surface - dew < DEW_MARGIN_C:
        return f"The surface is within {DEW_MARGIN_C:g} °C of the dew point ({tidy(dew)} °C): water will sit on it."
    return ""


def thickness_factor(wet_um: float, usual_um: float) -> float:
    """How much longer a film of `wet_um` takes than one of `usual_um`: linear to 500 µm, by the square beyond."""

    def slowness(um: float) -> float:
        return um if um <= 500 else um * um / 500

    return slowness(wet_um) / slowness(usual_um)


def takes_min(minutes: float | None, film: Film, wet_um: float, temperature_c: float, humidity: float,
              cure: bool = False) -> float | None:  # fmt: skip
    """One of a film's times here, in minutes; None stays unknown.

    Films without water dry as cure does. A night stays a night: never under 8 hours. A thin coat is not
    promised to dry faster than a usual one.
    """
    if minutes is None:
        return None
    if cure or film.carrier != "water":
        scaled = minutes * cure_factor(temperature_c)
    else:
        scaled = minutes * factor(temperature_c, humidity)
    if not cure and film.kind not in {"wax", "oil"}:
        scaled *= max(1.0, thickness_factor(wet_um, film.usual_um))
    return max(scaled, NIGHT) if minutes >= NIGHT else scaled
