"""Numbers as people type them: 12, 0,75, .5, 1/4, 29 1/2, 1½."""

import re

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
"""A number in text that `plain` and `points` have been through."""


def plain(text: str) -> str:
    """The text in small letters, with lookalikes and printed fractions in plain characters.

    >>> plain("2′ 5½″")
    '2\\' 5 1/2"'
    """
    said = text.translate(LOOKALIKES).lower()
    for mark, written in VULGAR.items():
        said = said.replace(mark, f" {written}")
    return said.strip()


def points(text: str) -> str:
    """The text with decimal commas as points."""
    return re.sub(r"(\d),(\d)", r"\1.\2", text)


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
