"""Tables: rectangular, round and oval."""

from dataclasses import replace

from ...measure.drawing import Drawing, Face, box, callout, ellipse, lay_out, outline, view
from ...measure.lengths import say_length
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes
from .parts import band, flat, oval_flat, oval_round, pane, round_flat, round_legs, size, square_legs

TOP = size("thickness", "Top, thickness", 25, 3, 120)
HEIGHT = size("height", "Height", 750, 150, 1300)


def check(s: Sizes) -> tuple[Misfit, ...]:
    """Apron and legs must fit under the top."""
    found = []
    room = s["height"] - s["thickness"]
    if s["apron"] >= room:
        found.append(Misfit("apron", "The apron reaches the floor.", f"less than {say_length(room)}"))
    short = min(s["length"], s["width"])
    if 2 * s["leg"] > short:
        found.append(Misfit("leg", "Two legs are wider than the table.", f"at most {say_length(short / 2)}"))
    return tuple(found)


def surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Top with its leaves, edges, apron between the legs, legs."""
    length = s["length"] + s["leaves"] * s["leaf"]
    run = 2 * (s["length"] - 2 * s["leg"] + s["width"] - 2 * s["leg"])
    return (
        flat("top", "Top", "Top", length, s["width"], vertical=False, does=("slides",) if s["leaves"] else ()),
        band("top-edges", "Top edges", "Top", 2 * (length + s["width"]), s["thickness"]),
        band(
            "leaf-joints",
            "Leaf joints",
            "Top",
            2 * s["leaves"] * s["width"],
            s["thickness"],
            bare="joints stay clear",
            does=("slides",),
        ),
        band("apron", "Apron", "Base", run, s["apron"]),
        square_legs(4, s["leg"], s["foot"], s["height"] - s["thickness"]),
        flat("underside", "Underside", "Top", length, s["width"], vertical=False, bare="not seen"),
    )


def _leg(x: float, s: Sizes, y: float) -> Face:
    leg, foot = s["leg"], s["foot"]
    return Face("legs", "Leg", outline(x + leg / 2, ((0, foot), (s["height"] - y, leg)), s["height"]))


def draw(s: Sizes) -> Drawing:
    """From the front and from above."""
    length, height, thickness, leg = s["length"] + s["leaves"] * s["leaf"], s["height"], s["thickness"], s["leg"]
    faces = [
        pane("top-edges", "Top edge", 0, 0, length, thickness),
        pane("apron", "Apron", leg, thickness, length - 2 * leg, s["apron"]),
        _leg(0, s, thickness),
        _leg(length - leg, s, thickness),
    ]
    front = view("front", length, height, faces, [callout("height", "left", 0, 0, height)])
    above = view("from above", length, s["width"], [pane("top", "Top", 0, 0, length, s["width"])], [
        callout("length", "below", 0, s["width"], length), callout("width", "right", length, 0, s["width"]),
    ])  # fmt: skip
    return lay_out(front, above)


RECTANGULAR = PieceKind(
    "table",
    "Table, rectangular",
    (
        size("length", "Length", 1400, 200, 5000),
        size("width", "Width", 800, 150, 2500),
        HEIGHT,
        TOP,
        size("apron", "Apron, height", 90, 0, 400),
        size("leg", "Leg, at the top", 65, 10, 300),
        size("foot", "Leg, at the floor", 65, 5, 300),
        size("leaf", "Leaf, width", 400, 50, 1500, "leaves"),
    ),
    surfaces,
    draw,
    (CountSpec("leaves", "Leaves", 0, 4, 0),),
    check,
)


def _legs_and_edge(s: Sizes, round_mm: float) -> tuple[FaceGroup, FaceGroup]:
    edge = band("top-edges", "Top edge", "Top", round_mm, s["thickness"])
    return edge, round_legs(s["legs"], s["leg"], s["foot"], s["height"] - s["thickness"])


def oval_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Top, its edge, turned legs."""
    edge, legs = _legs_and_edge(s, oval_round(s["length"], s["width"]))
    top = oval_flat("top", "Top", "Top", s["length"], s["width"])
    under = oval_flat("underside", "Underside", "Top", s["length"], s["width"], bare="not seen")
    return (top, edge, legs, under)


def round_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Top, its edge, turned legs."""
    top = round_flat("top", "Top", "Top", s["diameter"])
    edge, legs = _legs_and_edge(s, oval_round(s["diameter"], s["diameter"]))
    return (top, edge, legs, round_flat("underside", "Underside", "Top", s["diameter"], bare="not seen"))


def _draw_round(s: Sizes, length: float, width: float) -> Drawing:
    height, leg = s["height"], s["leg"]
    legs = []
    shown = min(int(s["legs"]), 4)
    for k in range(shown):
        x = length * (0.2 + 0.6 * k / max(shown - 1, 1)) - leg / 2 if shown > 1 else length / 2 - leg / 2
        legs.append(replace(_leg(x, s, s["thickness"]), shape="round"))
    top = Face("top-edges", "Top edge", box(0, 0, length, s["thickness"]))
    front = view("front", length, height, [*legs, top], [callout("height", "left", 0, 0, height)])
    across = "diameter" if "diameter" in s else "length"
    callouts = [callout(across, "below", 0, width, length)]
    if across == "length":
        callouts.append(callout("width", "right", length, 0, width))
    above = view(
        "from above", length, width, [Face("top", "Top", ellipse(0, 0, length, width), shape="oval")], callouts
    )
    return lay_out(front, above)


ROUND_LEGS = (size("leg", "Leg ø, at the top", 50, 10, 400), size("foot", "Leg ø, at the floor", 30, 5, 400))
LEGS = (CountSpec("legs", "Legs", 1, 6, 4),)
ROUND = PieceKind(
    "round-table",
    "Table, round",
    (size("diameter", "Diameter", 1000, 150, 3000), HEIGHT, TOP, *ROUND_LEGS),
    round_surfaces,
    lambda s: _draw_round(s, s["diameter"], s["diameter"]),
    LEGS,
)
OVAL = PieceKind(
    "oval-table",
    "Table, oval",
    (size("length", "Length", 1200, 200, 4000), size("width", "Width", 800, 150, 2500), HEIGHT, TOP, *ROUND_LEGS),
    oval_surfaces,
    lambda s: _draw_round(s, s["length"], s["width"]),
    LEGS,
)
STOOL = PieceKind(
    "stool",
    "Stool",
    (
        size("diameter", "Seat, diameter", 330, 100, 800),
        size("height", "Height", 450, 100, 1000),
        size("thickness", "Seat, thickness", 30, 3, 120),
        *ROUND_LEGS,
    ),
    round_surfaces,
    lambda s: _draw_round(s, s["diameter"], s["diameter"]),
    LEGS,
)
