"""Lengths as people say them: 750, 75 cm, 0,75 m, 29 1/2", 2' 5 1/2", 2ft 5.5in."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import floor
from typing import Literal

from ..errors import AmbiguousValue, InvalidValue, UnreadableLength
from ..value import NotNegative, Value
from .numbers import NUMBER, plain, points, read_number

MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8, "yd": 914.4}
"""International inch of 1959: 25.4 mm exactly."""

WORDS = {
    **dict.fromkeys(("mm", "millimetre", "millimetres", "millimeter", "millimeters"), "mm"),
    **dict.fromkeys(("cm", "centimetre", "centimetres", "centimeter", "centimeters"), "cm"),
    **dict.fromkeys(("m", "metre", "metres", "meter", "meters"), "m"),
    **dict.fromkeys(("in", "ins", "inch", "inches", '"'), "in"),
    **dict.fromkeys(("ft", "foot", "feet", "'"), "ft"),
    **dict.fromkeys(("yd", "yds", "yard", "yards"), "yd"),
}
PIECE = re.compile(rf"\s*({NUMBER})\s*(''|[a-z]+|[\"'])?\.?\s*", re.IGNORECASE)
MOST_TYPED = 60
"""The longest text read as a length, characters: what is longer was never one, and would take long to find out."""
EXAMPLES = 'for example 750, 75 cm, 0.75 m, 29 1/2" or 2\' 5 1/2"'


@dataclass(frozen=True)
class Length(Value):
    """A length in mm, with the words it was typed in, so that people see their own unit again."""

    mm: NotNegative
    typed: str
    source: Literal["typed", "usual"] = "typed"
    """"usual" where nobody measured it: what such pieces usually have."""


def _ask_about_thousands(text: str, typed: str) -> None:
    """`1,250` is 1250 to some and 1.25 to others. Never guess."""
    bare = re.fullmatch(r"\s*\d+\.\d{3}\s*(mm)?\s*", text)
    found = re.search(r"(?<![\d.,])([1-9]\d{0,2})[,.](\d{3})(?!\d)", text) if bare or "," in text else None
    if not found or (found.group(0)[len(found.group(1))] == "." and not bare):
        return
    whole = text.replace(found.group(0), found.group(1) + found.group(2)).strip()
    decimal = text.replace(found.group(0), f"{found.group(1)}.{found.group(2).rstrip('0') or '0'}").strip()
    says = f"{typed!r} can be read as {whole} or as {decimal}."
    raise AmbiguousValue(says, value=typed, readings=(whole, decimal))


Bare = Literal["mm", "in"]
"""The unit of a number that stands alone, by the measures of a workshop."""


def bare_unit(measures: str) -> Bare:
    """What a bare number is in a workshop of these measures: inches in a US one, millimetres in all others."""
    return "in" if measures == "us" else "mm"


def with_unit(length: Length, bare: Bare) -> Length:
    """The length with its unit in its words, so that it is never read again as something else.

    >>> with_unit(Length(750, "750"), "mm").typed, with_unit(Length(762, "30"), "in").typed
    ('750 mm', '30 in')
    """
    return Length(length.mm, f"{length.typed} {bare}") if _stands_alone(length.typed) else length


def _stands_alone(typed: str) -> bool:
    """Whether a number was typed without a unit."""
    return re.fullmatch(NUMBER, points(plain(typed))) is not None


UNITS = ("mm", "cm", "m", "in", "ft")
"""Units a bare number may have been meant in."""


def read_length(typed: str, bare: Bare = "mm", within: tuple[float, float] | None = None) -> Length:
    """Read a length as it was typed into a field, once and for all: its unit becomes part of its words.

    `within` is the least and the most it can be, mm: a bare number that only another unit brings within them is asked
    about. Raises what `parse_length` raises, and AmbiguousValue with the readings that are possible.

    >>> read_length("30", "in"), read_length("29,5", "in").mm
    (Length(mm=762.0, typed='30 in', source='typed'), 749.3)
    """
    length = parse_length(typed, bare)
    whole = with_unit(length, bare)
    if within and whole.typed != length.typed and not within[0] <= whole.mm <= within[1]:
        others = (f"{length.typed} {u}" for u in UNITS if u != bare)
        readings = tuple(o for o in others if within[0] <= parse_length(o).mm <= within[1])
        if readings:
            says = f"{whole.typed} is {say_length(round(whole.mm, 1))}: that would be an unusual size."
            raise AmbiguousValue(says, value=whole.typed, readings=readings)
    return whole


SEPARATORS = re.compile(r"\s*(?:×|\*|(?<![a-z])x(?![a-z])|\bby\b|;|,\s)\s*", re.IGNORECASE)


def read_sizes(typed: str, bare: Bare = "mm", within: Sequence[tuple[float, float]] = ()) -> tuple[Length, ...]:
    """Several lengths typed in one go: 1200 × 400 × 18, 48 by 16 in, 120 x 40 x 2 cm.

    Where only the last one has its unit, it is that of all before it. Raises what `read_length` raises.

    >>> [one.mm for one in read_sizes("120 x 40 x 2 cm")], [one.mm for one in read_sizes("48 by 16", "in")]
    ([1200.0, 400.0, 20.0], [1219.2, 406.4])
    """
    texts = [t for t in SEPARATORS.split(typed.strip()) if t]
    if not texts:
        raise UnreadableLength("No length was given.", value=typed, allowed="sizes, for example 1200 × 400 × 18")
    alone = [_stands_alone(t) for t in texts]
    if all(alone[:-1]) and (unit := re.search(r"[\d.]\s*([a-z]+|[\"'])\.?\s*$", plain(texts[-1]))):
        texts = [*(f"{t} {unit.group(1)}" for t in texts[:-1]), texts[-1]]
    sizes = tuple(read_length(t, bare) for t in texts)
    if all(alone) and not _all_within(sizes, within):
        others = (f"{typed.strip()} {u}" for u in UNITS if u != bare)
        readings = tuple(o for o in others if _all_within(read_sizes(o, bare), within))
        if readings:
            says = f"{typed.strip()} {bare} would be an unusual size."
            raise AmbiguousValue(says, value=typed.strip(), readings=readings)
    return sizes


def _all_within(sizes: Sequence[Length], within: Sequence[tuple[float, float]]) -> bool:
    """Whether lengths lie within bounds, mm, as far as there are both."""
    return all(least <= one.mm <= most for one, (least, most) in zip(sizes, within, strict=False))


def usual_length(mm: float, bare: Bare = "mm") -> Length:
    """What a piece usually has, in the words of the workshop: whole mm, or the nearest quarter of an inch.

    >>> usual_length(450), usual_length(450, "in")
    (Length(mm=450.0, typed='450 mm', source='usual'), Length(mm=450.85, typed='17 3/4 in', source='usual'))
    """
    if bare == "mm":
        return Length(float(mm), f"{mm:g} mm", "usual")
    inches = mm / MM["in"]
    part = 4 if not mm or inches >= 1 / 8 else 16
    whole, rest = divmod(Fraction(max(floor(inches * part + 0.5), 1 if mm else 0), part), 1)
    words = " ".join(str(n) for n in (whole, rest) if n) or "0"
    return Length(parse_length(f"{words} in").mm, f"{words} in", "usual")


def parse_length(typed: str, bare: Bare = "mm") -> Length:
    """Read a length from text; a bare number is in `bare`. Zero is a part that is not there.

    Raises UnreadableLength, AmbiguousValue, or InvalidValue for what is below zero.

    >>> parse_length('29 1/2"').mm, parse_length("2' 5 1/2\\"").mm, parse_length("0,75 m").mm
    (749.3, 749.3, 750.0)
    """
    shown = typed.strip()
    if len(shown) > MOST_TYPED:
        raise UnreadableLength(
            f"{shown[:MOST_TYPED]!r}… is too long for a length.", value=shown[:MOST_TYPED],
            allowed=f"at most {MOST_TYPED} characters, {EXAMPLES}",
        )  # fmt: skip
    text = plain(shown)
    if re.match(r"^-\s*[\d.]", text):
        raise InvalidValue(f"{shown!r} is below zero.", value=shown, allowed=f"a length of zero or more, {EXAMPLES}")
    _ask_about_thousands(text, shown)
    text = points(text)
    total, last, at = 0.0, "", 0
    while at < len(text):
        piece = PIECE.match(text, at)
        unit = WORDS.get("in" if piece and piece.group(2) == "''" else (piece.group(2) or "") if piece else "")
        if piece is None or (piece.group(2) and unit is None):
            raise UnreadableLength(f"{shown!r} is not a length.", value=shown, allowed=f"a length, {EXAMPLES}")
        if unit is None:  # a bare number: millimetres, or what usually follows the unit before it
            unit = {"": bare, "m": "cm", "ft": "in", "yd": "ft"}.get(last)
        if unit is None or (last and MM[unit] >= MM[last]):
            raise UnreadableLength(
                f"{shown!r} has its parts in an order that cannot be read.",
                value=shown,
                allowed=f"larger units first, {EXAMPLES}",
            )
        try:
            total += read_number(piece.group(1)) * MM[unit]
        except ZeroDivisionError as error:
            says = f"{shown!r} divides by zero."
            raise UnreadableLength(says, value=shown, allowed=f"a length, {EXAMPLES}") from error
        last, at = unit, piece.end()
    if not last:
        raise UnreadableLength("No length was given.", value=shown, allowed=f"a length, {EXAMPLES}")
    if total > 1e9:
        raise InvalidValue(f"{shown!r} is longer than anything.", value=shown, allowed=f"a length, {EXAMPLES}")
    return Length(round(total, 6), shown)


def say_length(mm: float) -> str:
    """A length in mm as a tape shows it: mm below 1 m, metres above.

    >>> say_length(750.0), say_length(6000)
    ('750 mm', '6 m')
    """
    return f"{mm:g} mm" if mm < 1000 else f"{mm / 1000:g} m"
