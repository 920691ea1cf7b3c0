"""Coverage as labels print it, read once: m² to the litre, or ft² to the gallon and which gallon."""

import re
from dataclasses import dataclass
from typing import Literal

from ..errors import AmbiguousValue, InvalidValue
from ..figure import tidy
from ..value import Positive, Value

CoverageUnit = Literal["m²/l", "ft²/US gal", "ft²/imp gal", "ml/m²"]

FT2_M2 = 0.09290304
"""The international foot of 1959, squared: 0.3048² m² exactly."""
GALLON_ML = {"US": 3785.411784, "imp": 4546.09}
"""231 cubic inches; and 4.54609 l by definition."""
LEAST, MOST = 5.0, 3000.0
"""ml/m² between which a coat's coverage is believed."""
EXAMPLE = "for example 12 m²/l, 400 ft² per US gallon, or 90 ml/m²"

NUMBER = r"(\d+(?:[.,]\d+)?)(?:\s*(?:-|–|to)\s*(\d+(?:[.,]\d+)?))?"
M2 = r"(?:m²|m2|sqm|sq\.?\s*m|square met(?:re|er)s?)"
PER = r"\s*(?:/|per|a)\s*"
PER_LITRE = re.compile(rf"^{NUMBER}\s*{M2}{PER}(?:l|lit(?:re|er))$")
PER_M2 = re.compile(rf"^{NUMBER}\s*ml{PER}{M2}$")
PER_GALLON = re.compile(
    rf"^{NUMBER}\s*(?:ft²|ft2|sqft|sq\.?\s*ft\.?|square f(?:ee|oo)t){PER}"
    r"(us|u\.s\.|imp|imp\.|imperial|uk)?\s*gal(?:lon|\.)?$"
)


@dataclass(frozen=True)
class Coverage(Value):
    """A coverage: its number and unit as printed, what that is for each m², and the same said the other ways."""

    number: Positive
    unit: CoverageUnit
    ml_per_m2: Positive
    said: str
    also: str


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def ml_per_m2(number: float, unit: CoverageUnit) -> float:
    """What a coverage is for each m², ml.

    >>> round(ml_per_m2(12, "m²/l"), 2), round(ml_per_m2(400, "ft²/US gal"), 2)
    (83.33, 101.86)
    """
    if unit == "ml/m²":
        return number
    if unit == "m²/l":
        return 1000 / number
    return GALLON_ML[unit.removeprefix("ft²/").removesuffix(" gal")] / (number * FT2_M2)


def _coverage(number: float, unit: CoverageUnit) -> Coverage:
    each = ml_per_m2(number, unit)
    others = {
        "m²/l": f"{tidy(1000 / each)} m²/l",
        "ml/m²": f"{tidy(each)} ml/m²",
        "ft²/US gal": f"{tidy(GALLON_ML['US'] / each / FT2_M2)} ft² per US gallon",
        "ft²/imp gal": f"{tidy(GALLON_ML['imp'] / each / FT2_M2)} ft² per imperial gallon",
    }
    said = f"{number:g} {unit}" if unit in {"m²/l", "ml/m²"} else others[unit]
    if not LEAST <= each <= MOST:
        raise InvalidValue(
            f"{said} would be {tidy(each)} ml/m².", value=number, allowed=f"{LEAST:g} to {MOST:g} ml/m²", field="typed"
        )
    return Coverage(number, unit, each, said, ", ".join(words for key, words in others.items() if key != unit))


def read_coverage(typed: str, measures: str = "metric") -> Coverage:
    """A coverage as it is typed off a label. Of a range the lesser area, which takes more.

    `measures` of the workshop say which gallon is meant where that is not said; where they do not, and for a bare
    number, it is asked. Raises InvalidValue, or AmbiguousValue with the readings.

    >>> read_coverage("12 m²/l").ml_per_m2, read_coverage("400 sq ft per gallon", "us").unit
    (83.33333333333333, 'ft²/US gal')
    """
    text = re.sub(r"\s+", " ", typed.strip().lower())
    for pattern, unit in ((PER_LITRE, "m²/l"), (PER_M2, "ml/m²")):
        if found := pattern.match(text):
            numbers = [_number(n) for n in found.groups() if n]
            return _coverage(min(numbers) if unit == "m²/l" else max(numbers), unit)  # type: ignore[arg-type]
    if found := PER_GALLON.match(text):
        first, second, which = found.groups()
        number = min(_number(n) for n in (first, second) if n)
        if not which and measures not in {"us", "imperial"}:
            gallons = (f"{number:g} ft² per US gallon", f"{number:g} ft² per imperial gallon")
            says = f"{typed.strip()!r} does not say which gallon."
            raise AmbiguousValue(says, value=typed, readings=gallons, field="typed")
        american = which in {"us", "u.s."} if which else measures == "us"
        return _coverage(number, "ft²/US gal" if american else "ft²/imp gal")
    if re.fullmatch(NUMBER, text):
        bare = text.split("-")[0].strip()
        readings = (f"{bare} m²/l", f"{bare} ml/m²", f"{bare} ft² per US gallon")
        says = f"{typed.strip()!r} does not say of what."
        raise AmbiguousValue(says, value=typed, readings=readings, field="typed")
    raise InvalidValue(f"{typed.strip()[:60]!r} is no coverage.", value=typed, allowed=EXAMPLE, field="typed")
