"""Lengths as people say them: 750, 75 cm, 0,75 m, 29 1/2", 2' 5 1/2", 2ft 5.5in."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import floor
from typing import Literal

from ..errors import AmbiguousValue, InvalidValue, UnreadableLength
from ..value import NotNegative, Value
from .numbers import NUMBER, plain, read_number, readings

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
    source: Literal["typed", "usual", "reread"] = "typed"
    """"usual" where nobody measured it: what such pieces usually have; "reread" where its words were once read
    otherwise, so that somebody should look at it."""


Bare = Literal["mm", "in"]
"""The unit of a number that stands alone, by the measures of a workshop."""

LONGEST_MM = 25_000.0
"""Nothing that is painted by hand is longer: where a dot before three digits would make it so, it is a decimal one."""


def _one_reading(text: str, shown: str, bare: Bare) -> str:
    """What a text means. `1,250` is 1250 to some and 1.25 to others: never guess. Raises AmbiguousValue."""
    both = readings(text)
    if len(both) == 1 or (len(both) == 2 and "." in text and "," not in text and _too_long(both[0], bare)):
        return both[-1]
    says = f"{shown!r} can be read as {both[0]} or as {both[-1]}."
    raise AmbiguousValue(says, value=shown, readings=(both[0], both[-1]))


def _too_long(text: str, bare: Bare) -> bool:
    """Whether a text with a unit of its own would be longer than anything that is painted."""
    try:
        return not _stands_alone(text) and _total(text, text, bare) > LONGEST_MM
    except InvalidValue:
        return True


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
    return re.fullmatch(NUMBER, readings(plain(typed))[-1]) is not None


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
    total = _total(_one_reading(text, shown, bare), shown, bare)
    if total > LONGEST_MM and re.search(r"\d \d", text) and not _stands_alone(text):
        raise UnreadableLength(f"{shown!r} cannot be one length.", value=shown, allowed=f"a length, {EXAMPLES}")
    if total > 1e9:
        raise InvalidValue(f"{shown!r} is longer than anything.", value=shown, allowed=f"a length, {EXAMPLES}")
    return Length(round(total, 6), shown)


@dataclass(frozen=True)
class _Piece:
    """A number of a length with its unit; "" where it stands alone."""

    says: str
    unit: str

    @property
    def whole(self) -> bool:
        return self.says.isdigit()


def _pieces(text: str, shown: str) -> list[_Piece]:
    """The numbers of a length, each with its unit."""
    found, at = list[_Piece](), 0
    while at < len(text):
        piece = PIECE.match(text, at)
        unit = "in" if piece and piece.group(2) == "''" else WORDS.get(piece.group(2) or "") if piece else None
        if piece is None or (piece.group(2) and unit is None):
            raise UnreadableLength(f"{shown!r} is not a length.", value=shown, allowed=f"a length, {EXAMPLES}")
        found.append(_Piece(piece.group(1), unit or ""))
        at = piece.end()
    if not found:
        raise UnreadableLength("No length was given.", value=shown, allowed=f"a length, {EXAMPLES}")
    return found


def _follows(piece: _Piece, last: str) -> str:
    """The unit of a number that stands alone after one in another unit; "" where there is none.

    After metres three digits are millimetres and fewer are centimetres: 2 m 500, 1 m 20.
    """
    if last == "m":
        return "mm" if re.match(r"\d{3}(?!\d)", piece.says) else "cm"
    return {"ft": "in", "yd": "ft"}.get(last, "")


def _total(text: str, shown: str, bare: Bare) -> float:
    """What a text comes to, mm: each unit smaller than the one before, and less than one of it."""
    pieces = _pieces(text, shown)
    total, last = 0.0, ""
    for n, piece in enumerate(pieces):
        unit = piece.unit or (_follows(piece, last) if n else bare if len(pieces) == 1 else "")
        if not unit or (last and (MM[unit] >= MM[last] or not pieces[n - 1].whole)):
            raise UnreadableLength(f"{shown!r} has its parts in an order that cannot be read.", value=shown,
                                   allowed=f"larger units first, {EXAMPLES}")  # fmt: skip
        try:
            mm = read_number(piece.says) * MM[unit]
        except ZeroDivisionError as error:
            says = f"{shown!r} divides by zero."
            raise UnreadableLength(says, value=shown, allowed=f"a length, {EXAMPLES}") from error
        if last and mm >= MM[last] - 1e-9:
            most = f"less than 1 {last} after the {last}"
            raise UnreadableLength(f"{shown!r} has {piece.says} {unit} after {last}: that is more than one of them.",
                                   value=shown, allowed=f"{most}, {EXAMPLES}")  # fmt: skip
        total, last = total + mm, unit
    return total


def say_length(mm: float) -> str:
    """A length in mm as a tape shows it: mm below 1 m, metres above.

    >>> say_length(750.0), say_length(6000)
    ('750 mm', '6 m')
    """
    return f"{mm:g} mm" if mm < 1000 else f"{mm / 1000:g} m"
