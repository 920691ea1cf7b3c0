"""Lengths as people say them: 750, 75 cm, 0,75 m, 29 1/2", 2' 5 1/2", 2ft 5.5in."""

import re
from dataclasses import dataclass

from ..errors import AmbiguousLength, InvalidValue, UnreadableLength
from ..value import NotNegative, Value

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
LOOKALIKES = str.maketrans({"″": '"', "“": '"', "”": '"', "′": "'", "’": "'", "‘": "'", "\u00a0": " ", "−": "-"})
VULGAR = {
    "¼": "1/4",
    "½": "1/2",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
}
NUMBER = r"(?:\d+(?:[ -]+\d+/\d+)|\d+/\d+|\d+(?:\.\d+)?|\.\d+)"
PIECE = re.compile(rf"\s*({NUMBER})\s*(''|[a-z]+|[\"'])?\.?\s*", re.IGNORECASE)
MOST_TYPED = 60
"""The longest text read as a length, characters: what is longer was never one, and would take long to find out."""
EXAMPLES = 'for example 750, 75 cm, 0.75 m, 29 1/2" or 2\' 5 1/2"'


@dataclass(frozen=True)
class Length(Value):
    """A length in mm, with the words it was typed in, so that people see their own unit again."""

    mm: NotNegative
    typed: str


def _number(text: str) -> float:
    total = 0.0
    for part in re.split(r"[ -]+", text):
        top, _, bottom = part.partition("/")
        if bottom and not float(bottom):
            raise UnreadableLength(f"{text!r} divides by zero.", value=text, allowed=f"a length, {EXAMPLES}")
        total += float(top) / float(bottom) if bottom else float(top)
    return total


def _ask_about_thousands(text: str, typed: str) -> None:
    """`1,250` is 1250 to some and 1.25 to others. Never guess."""
    bare = re.fullmatch(r"\s*\d+\.\d{3}\s*(mm)?\s*", text)
    found = re.search(r"(?<![\d.,])([1-9]\d{0,2})[,.](\d{3})(?!\d)", text) if bare or "," in text else None
    if not found or (found.group(0)[len(found.group(1))] == "." and not bare):
        return
    whole = text.replace(found.group(0), found.group(1) + found.group(2)).strip()
    decimal = text.replace(found.group(0), f"{found.group(1)}.{found.group(2).rstrip('0') or '0'}").strip()
    raise AmbiguousLength(
        f"{typed!r} can be read as {whole} or as {decimal}.",
        value=typed,
        allowed=f"type {whole} or {decimal}",
        readings=(whole, decimal),
    )


def parse_length(typed: str) -> Length:
    """Read a length from text; a bare number is millimetres. Zero is a part that is not there.

    Raises UnreadableLength, AmbiguousLength, or InvalidValue for what is below zero.

    >>> parse_length('29 1/2"').mm, parse_length("2' 5 1/2\\"").mm, parse_length("0,75 m").mm
    (749.3, 749.3, 750.0)
    """
    shown = typed.strip()
    if len(shown) > MOST_TYPED:
        raise UnreadableLength(
            f"{shown[:MOST_TYPED]!r}… is too long for a length.", value=shown[:MOST_TYPED],
            allowed=f"at most {MOST_TYPED} characters, {EXAMPLES}",
        )  # fmt: skip
    text = shown.translate(LOOKALIKES).lower()
    for mark, plain in VULGAR.items():
        text = text.replace(mark, f" {plain}")
    text = text.strip()
    if re.match(r"^-\s*[\d.]", text):
        raise InvalidValue(f"{shown!r} is below zero.", value=shown, allowed=f"a length of zero or more, {EXAMPLES}")
    _ask_about_thousands(text, shown)
    text = re.sub(r"(\d),(\d)", r"\1.\2", text)
    total, last, at = 0.0, "", 0
    while at < len(text):
        piece = PIECE.match(text, at)
        unit = WORDS.get("in" if piece and piece.group(2) == "''" else (piece.group(2) or "") if piece else "")
        if piece is None or (piece.group(2) and unit is None):
            raise UnreadableLength(f"{shown!r} is not a length.", value=shown, allowed=f"a length, {EXAMPLES}")
        if unit is None:  # a bare number: millimetres, or what usually follows the unit before it
            unit = {"": "mm", "m": "cm", "ft": "in", "yd": "ft"}.get(last)
        if unit is None or (last and MM[unit] >= MM[last]):
            raise UnreadableLength(
                f"{shown!r} has its parts in an order that cannot be read.",
                value=shown,
                allowed=f"larger units first, {EXAMPLES}",
            )
        total += _number(piece.group(1)) * MM[unit]
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
