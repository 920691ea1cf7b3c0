"""A board: a shelf, a rack, a plain top."""

from ..drawing import Callout, Drawing, Face, Point, box
from ..shapes import board_edges, rectangle
from ..working import tidy
from .kind import PieceKind, Sizes, SizeSpec, Surface

SIZES = (
    SizeSpec("length", "Length", 10, 6000, 1000),
    SizeSpec("width", "Width", 10, 3000, 500),
    SizeSpec("thickness", "Thickness", 1, 200, 20),
)


def surfaces(sizes: Sizes) -> tuple[Surface, ...]:
    """Top, four edges together, and underside."""
    length, width, thickness = sizes["length"], sizes["width"], sizes["thickness"]
    flat = rectangle(length, width)
    face = f"{tidy(length / 1000)} × {tidy(width / 1000)} m"
    edges = f"2 × ({tidy(length / 1000)} + {tidy(width / 1000)}) × {tidy(thickness / 1000)} m"
    return (
        Surface("top", "Top", flat, face),
        Surface("edges", "Edges", board_edges(length, width, thickness), edges),
        Surface("underside", "Underside", flat, face, "not seen"),
    )


def draw(sizes: Sizes, coated: frozenset[str]) -> Drawing:
    """The board unfolded: the top with its four edges laid out round it, a hand's gap between, to scale."""
    length, width, thickness = sizes["length"], sizes["width"], sizes["thickness"]
    gap = max(length, width) * 0.02
    x0 = y0 = thickness + gap
    shown = {s: "coated" if s in coated else "bare" for s in ("top", "edges", "underside")}

    def face(surface: str, name: str, outline: tuple[Point, ...]) -> Face:
        return Face(surface, name, outline, "coated" if shown[surface] == "coated" else "bare")

    faces = (
        face("top", "Top", box(x0, y0, length, width)),
        face("edges", "Back edge", box(x0, 0, length, thickness)),
        face("edges", "Front edge", box(x0, y0 + width + gap, length, thickness)),
        face("edges", "Left edge", box(0, y0, thickness, width)),
        face("edges", "Right edge", box(x0 + length + gap, y0, thickness, width)),
    )
    right, bottom = x0 + length, y0 + width
    callouts = (
        Callout("length", Point(x0, bottom + gap + thickness), Point(right, bottom + gap + thickness), "below"),
        Callout("width", Point(right + gap + thickness, y0), Point(right + gap + thickness, bottom), "right"),
        Callout("thickness", Point(0, y0), Point(thickness, y0), "above"),
    )
    total_x, total_y = length + 2 * (thickness + gap), width + 2 * (thickness + gap)
    return Drawing(total_x, total_y, faces, callouts)


KIND = PieceKind("board", "Board", SIZES, surfaces, draw)
