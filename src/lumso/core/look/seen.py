"""What is said of a look: the strip, and what is seen from afar."""

from dataclasses import dataclass

import numpy as np

from ..colour.difference import lab
from ..colour.spectra import hex_from
from ..value import Value
from .column import Column
from .look import Look
from .words import colour_in_words


@dataclass(frozen=True)
class Seen(Value):
    """A zone's look in numbers and words. Every colour is an estimate: a test board tells."""

    column: Column
    afar: str
    """What all of it comes to from far away, sanded through and flaked as it is."""
    afar_words: str
    worn: bool
    """Whether sanding or flaking makes that otherwise than the strip says."""
    side_mm: float
    """How much of the surface its picture shows."""


def seen(look: Look) -> Seen:
    """What is said of a look."""
    column = look.column
    worn = any(f.chips or any(not s.rubs for s in f.laid.layer.sandings) for f in look.films)
    hex_, words = column.top.hex, column.top.words
    if worn:
        mean = np.clip(look.light(160).mean((0, 1), dtype=np.float64), 0, 1)
        hex_, words = hex_from(mean), colour_in_words(lab(mean))
    return Seen(column, hex_, words, worn, look.side_mm)
