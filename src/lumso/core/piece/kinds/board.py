"""A board: a shelf, a rack, a plain top."""

from ...measure.drawing import Drawing, callout, view
from ...measure.shapes import board_edges
from .kind import FaceGroup, PieceKind, Sizes
from .parts import flat, metres, pane, size


def surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Top, four edges together, and underside."""
    length, width, thickness = s["length"], s["width"], s["thickness"]
    run = f"2 × ({metres(length)} + {metres(width)}) × {metres(thickness)} m"
    return (
        flat("top", "Top", "Board", length, width, vertical=False),
        FaceGroup("edges", "Edges", board_edges(length, width, thickness), run, "Board"),
        flat("underside", "Underside", "Board", length, width, vertical=False, bare="not seen"),
    )


def draw(s: Sizes) -> Drawing:
    """The board unfolded: the top with its four edges laid out round it, to scale."""
    length, width, thickness = s["length"], s["width"], s["thickness"]
    gap = max(length, width) * 0.02
    at = thickness + gap
    faces = (
        pane("top", "Top", at, at, length, width),
        pane("edges", "Back edge", at, 0, length, thickness),
        pane("edges", "Front edge", at, at + width + gap, length, thickness),
        pane("edges", "Left edge", 0, at, thickness, width),
        pane("edges", "Right edge", at + length + gap, at, thickness, width),
    )
    end = 2 * at
    callouts = (
        callout("length", "below", at, width + end, length),
        callout("width", "right", length + end, at, width),
        callout("thickness", "above", 0, at, thickness),
    )
    return view("", length + end, width + end, faces, callouts)


KIND = PieceKind(
    "board",
    "Board",
    (
        size("length", "Length", 1000, 10, 6000),
        size("width", "Width", 500, 10, 3000),
        size("thickness", "Thickness", 20, 1, 200),
    ),
    surfaces,
    draw,
)
