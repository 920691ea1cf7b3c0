"""Ways to make a layout easier on the table: all of it in whole ticks, or gaps as wide as a tape there is."""

from ..layout.fit import ByTape, by_tapes, to_the_tick
from ..layout.pattern import Layout
from .laying import FaceLaid


def _length(layout: Layout, face: FaceLaid) -> float | None:
    """What stripes are spread over on a face, mm; None where they are no stripes, or run on over several."""
    if layout.kind != "stripes" or layout.fronts != "each by itself":
        return None
    return face.face.extent("x" if layout.runs == "down" else "y")


def ticked(layout: Layout, face: FaceLaid) -> tuple[Layout, float] | None:
    """The layout in whole ticks of its rule, and what stays over, mm; None where that is nothing to offer."""
    length = _length(layout, face)
    return None if length is None or layout.remainder_mm else to_the_tick(layout, length)


def taped(layout: Layout, face: FaceLaid) -> tuple[ByTape, ...]:
    """The layout with gaps as wide as a tape, those that would change nothing left out."""
    length = _length(layout, face)
    return () if length is None else tuple(o for o in by_tapes(layout, length) if o.layout != layout)
