"""The line protocol of the thermo-hygrometer: one line of ASCII a reading, with a sum that tells a garbled one.

The device greets with `LUMSO-ROOM 1 <place> <seconds>`, the seconds from one reading to the next where it measures
so (and may be left out), and then sends, whenever it measures, `READ <°C> <% RH> *<sum>`. The sum is the
exclusive or of all characters before ` *`, two hexadecimal digits. A client may send `NOW` to have one at once. Any
other line, either way, is skipped.
"""

import re
from functools import reduce

GREETING = "LUMSO-ROOM 1"
LINE = re.compile(r"READ (-?\d{1,3}(?:\.\d{1,2})?) (\d{1,3}(?:\.\d{1,2})?) \*([0-9A-F]{2})")
LONGEST = 80


def checksum(text: str) -> str:
    """The sum of a line, as it stands at its end.

    >>> checksum("READ 19.8 51.2")
    '14'
    """
    return f"{reduce(lambda a, c: a ^ ord(c), text, 0) & 0xFF:02X}"


def line(temperature_c: float, humidity: float) -> str:
    """A reading as a line: °C, and relative humidity 0–1."""
    text = f"READ {temperature_c:.1f} {humidity * 100:.1f}"
    return f"{text} *{checksum(text)}"


GREETED = re.compile(rf"{GREETING}(?: (?P<place>[^ ]{{1,60}}))?(?: (?P<every>\d{{1,5}}(?:\.\d{{1,3}})?))?")


def greeted(text: str) -> float | None:
    """Seconds between the readings of who greets so, 0 where that is not said; None for what is no greeting.

    >>> greeted("LUMSO-ROOM 1 porch 60"), greeted("LUMSO-ROOM 1"), greeted("READ 1 2")
    (60.0, 0.0, None)
    """
    found = GREETED.fullmatch(text)
    return None if found is None else float(found["every"] or 0)


def parse(text: str) -> tuple[float, float] | None:
    """°C and relative humidity 0–1 of a line; None where it is none, or was garbled.

    >>> parse(line(19.8, 0.512)), parse("READ 19.8 51.2 *00")
    ((19.8, 0.512), None)
    """
    found = LINE.fullmatch(text.strip())
    if found is None or checksum(text.strip().rpartition(" *")[0]) != found[3]:
        return None
    return float(found[1]), round(float(found[2]) / 100, 4)
