"""The line protocol of the bench scale, on a socket of this machine that only its owner may open.

The device greets each who connects with `LUMSO-SCALE 1 <boot> <most g> <step g>`, where `boot` is another whenever it
is switched on, and then sends, ten times a second or when it changes, one reading a line:

    <S|U|O> <number> <unit> <tares> *<sum>

`S` is steady, `U` still moving, `O` too much for it (the number is then 0). `unit` is g, oz or lb, `tares` how often
it was tared since it was switched on. The sum is the exclusive or of all characters before ` *`, two hexadecimal
digits. A client may send `TARE`. A simulated scale also takes what a hand would do: `PUT <g>`, `POUR <g>`, `LIFT`,
`UNIT <unit>`, `RESTART`. Lines are ASCII and at most 256 bytes; what is longer, or no line of these, is dropped and
counted.

What is shown counts from the last tare, what a scale can bear does not: a net weight over its most is too much, one
that lies further below zero than its most was never on it. Before the first tare it counts from the scale's own zero:
below that something is wrong with the zero, and what it shows is no weight. The first `READING_ZERO_STEPS` are drift.
"""

import re

from lumso.core.pour.scale import GRAMS, ScaleReading

from .lines import checksum

HELLO = re.compile(r"LUMSO-SCALE 1 ([0-9a-f]{4,16}) (\d{1,6}(?:\.\d)?) (\d{1,3}(?:\.\d{1,3})?)")
READING = re.compile(r"([SUO]) (-?\d{1,7}(?:\.\d{1,4})?) (g|oz|lb) (\d{1,6}) \*([0-9A-F]{2})")
LONGEST = 256
READING_ZERO_STEPS = 10
"""How many steps below its own zero a scale may show: drift, or a pan that has not come to rest."""


def hello(boot: str, most_g: float, step_g: float) -> str:
    """How a scale greets."""
    return f"LUMSO-SCALE 1 {boot} {most_g:g} {step_g:g}"


def reading_line(state: str, shown: float, unit: str, tares: int) -> str:
    """A reading as a line; `shown` is in its unit.

    >>> reading_line("S", 12.3, "g", 1)
    'S 12.3 g 1 *3B'
    """
    places = {"g": 1, "oz": 3, "lb": 4}[unit]
    text = f"{state} {shown:.{places}f} {unit} {tares}"
    return f"{text} *{checksum(text)}"


def parse_hello(text: str) -> tuple[str, float, float] | None:
    """Boot, most and step in g of a greeting; None where it is none."""
    found = HELLO.fullmatch(text)
    return (found[1], float(found[2]), float(found[3])) if found else None


def parse_reading(text: str, boot: str, most_g: float, step_g: float) -> ScaleReading | None:
    """A reading of a line from a scale that greeted so; None where it is none, or was garbled."""
    found = READING.fullmatch(text)
    if found is None or checksum(text.rpartition(" *")[0]) != found[5]:
        return None
    shown, tares = float(found[2]) * GRAMS[found[3]], int(found[4])
    slack = READING_ZERO_STEPS * step_g
    over = found[1] == "O" or shown > most_g + slack
    unsettled = not over and shown < -slack - (most_g if tares else 0.0)
    g = None if over or unsettled else shown
    return ScaleReading(boot, tares, found[3], g, found[1] == "S" and g is not None, over, step_g, most_g, unsettled)
