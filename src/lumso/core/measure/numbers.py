"""Numbers as people type them: 12, 0,75, .5, 1/4, 29 1/2, 1½, 1 250, 1.234,5."""

import re

LOOKALIKES = str.maketrans({
    "″": '"', "“": '"', "”": '"', "′": "'", "’": "'", "‘": "'", "−": "-", "⁄": "/",
    **dict.fromkeys("\u00a0\u2009\u202f", " "),
})  # fmt: skip
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
"""A number in text that `plain` and `readings` have been through."""


def plain(text: str) -> str:
    """The text in small letters, with lookalikes and printed fractions in plain characters.

    >>> plain("2′ 5½″")
    '2\\' 5 1/2"'
    """
    said = text.translate(LOOKALIKES).lower()
    for mark, written in VULGAR.items():
        said = said.replace(mark, f" {written}")
    return said.strip()


GROUPED = re.compile(
    r"(?<![\d.,/])(?P<first>[1-9]\d{0,2})(?P<rest>(?P<mark>[ '.,])\d{3}(?:(?P=mark)\d{3})*)(?![\d/])"
    r"(?P<part>[.,]\d+(?![\d.,]))?"
)
"""A number whose digits stand in threes: 1 250, 1'250, 1.234,5, 1,250,000."""
FOOT_IN = 12


def readings(text: str) -> tuple[str, ...]:
    """What a text that `plain` has been through can mean, with decimal points and without marks between thousands: one
    text where it is plain; two where `1,250` is a thousand to some and one and a quarter to others.

    >>> readings("1 250,5 mm"), readings("1.234,5"), readings("0,75 m"), readings("1,250 mm")
    (('1250.5 mm',), ('1234.5',), ('0.75 m',), ('1250 mm', '1.25 mm'))
    """
    made = [""]
    at = 0
    for found in GROUPED.finditer(text):
        before = _points(text[at : found.start()])
        made = [m + before + said for m in made for said in _grouped(found)]
        at = found.end()
    rest = _points(text[at:])
    return tuple(m + rest for m in made)


def _grouped(found: re.Match[str]) -> tuple[str, ...]:
    """What digits in threes can be."""
    mark, digits = found["mark"], re.sub(r"\D", "", found["rest"])
    part = found["part"] or ""
    if part.startswith(mark):  # 1.250.5: no number that anybody writes
        return (found.group(0),)
    whole = f"{found['first']}{digits}{part.replace(',', '.')}"
    if mark in ".," and len(digits) == 3 and not part:
        # Read back it is to be plain: fewer digits than three, or more.
        return whole, f"{found['first']}.{digits.rstrip('0') or '0' if digits.endswith('0') else f'{digits}0'}"
    if mark == "'" and float(digits) < FOOT_IN:
        return whole, f"{found['first']} ft {float(digits):g} in"
    return (whole,)


def _points(text: str) -> str:
    """The text with decimal commas as points."""
    return re.sub(r"(?:(?<=\d)|(?<!\S)),(?=\d)", ".", text)


def read_number(text: str) -> float:
    """What a `NUMBER` is. Raises ZeroDivisionError for 1/0.

    >>> read_number("29 1/2"), read_number("3/4"), read_number(".5")
    (29.5, 0.75, 0.5)
    """
    total = 0.0
    for part in re.split(r"[ -]+", text):
        top, _, bottom = part.partition("/")
        total += float(top) / float(bottom) if bottom else float(top)
    return total
