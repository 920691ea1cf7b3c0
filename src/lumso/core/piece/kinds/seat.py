"""Seats with a straight back or none: bench, settle, chair."""

from ...measure.drawing import Drawing, callout, lay_out, view
from ...measure.lengths import say_length
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes, SizeSpec
from .parts import band, flat, pane, size, square_legs


def check(s: Sizes) -> tuple[Misfit, ...]:
    """The seat is below the top of the back, and slats fit into the back."""
    found = []
    if "slats" in s and s["slats"] * s["slat"] > s["back"]:
        most = s["back"] / max(s["slats"], 1)
        found.append(
            Misfit("slat", "The slats are taller than the back together.", f"at most {say_length(round(most))}")
        )
    if 2 * s["leg"] > min(s["width"], s["depth"]):
        most = min(s["width"], s["depth"]) / 2
        found.append(Misfit("leg", "Two legs are wider than the seat.", f"at most {say_length(most)}"))
    return tuple(found)


def _seat(s: Sizes) -> tuple[FaceGroup, ...]:
    width, depth = s["width"], s["depth"]
    return (
        flat("seat", "Seat", "Seat", width, depth, vertical=False),
        band("seat-edges", "Seat edges", "Seat", 2 * (width + depth), s["thickness"]),
        square_legs(4, s["leg"], s["leg"], s["height"] - s["thickness"]),
        flat("underside", "Underside", "Seat", width, depth, vertical=False, bare="not seen"),
    )


def bench_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Seat, legs, and a closed back of both faces when there is one."""
    if not s["back"]:
        return _seat(s)
    return (*_seat(s), flat("back", "Back, both faces", "Back", s["width"], s["back"], 2))


def chair_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Seat, legs, two posts and slats of both faces between them."""
    post, between = s["leg"], s["width"] - 2 * s["leg"]
    return (
        *_seat(s),
        flat("posts", "Back posts", "Back", s["back"], 4 * post, 2),
        flat("slats", "Slats, both faces", "Back", between, s["slat"], 2 * s["slats"]),
    )


def draw(s: Sizes) -> Drawing:
    """Front and side."""
    width, depth, back, leg, thick = s["width"], s["depth"], s["back"], s["leg"], s["thickness"]
    whole, under = s["height"] + back, s["height"] - thick
    faces = []
    if back and "slats" in s:
        faces += [pane("posts", "Post", x, 0, leg, back) for x in (0, width - leg)]
        n = int(s["slats"])
        for k in range(n):
            room = back / n
            faces.append(pane("slats", f"Slat {k + 1}", leg, k * room, width - 2 * leg, s["slat"]))
    elif back:
        faces.append(pane("back", "Back", 0, 0, width, back))
    faces += [pane("legs", "Leg", x, back + thick, leg, under) for x in (0, width - leg)]
    faces.append(pane("seat-edges", "Seat edge", 0, back, width, thick))
    front = view("front", width, whole, faces, [
        callout("width", "below", 0, whole, width), callout("height", "left", 0, back, s["height"]),
        *([callout("back", "left", 0, 0, back)] if back else []),
    ])  # fmt: skip
    above = view("from above", width, depth, [pane("seat", "Seat", 0, 0, width, depth)],
                 [callout("depth", "right", width, 0, depth)])  # fmt: skip
    return lay_out(front, above)


def _sizes(width: float, depth: float, back: float, leg: float) -> tuple[SizeSpec, ...]:
    return (
        size("width", "Width", width, 100, 4000),
        size("depth", "Depth", depth, 100, 900),
        size("height", "Height of the seat", 450, 100, 900),
        size("thickness", "Seat, thickness", 28, 3, 120),
        size("leg", "Legs, square", leg, 10, 200),
        size("back", "Back, above the seat", back, 0, 1500),
    )


BENCH = PieceKind("bench", "Bench or settle", _sizes(1200, 380, 0, 60), bench_surfaces, draw, check=check)
CHAIR = PieceKind(
    "chair",
    "Chair",
    (*_sizes(430, 420, 450, 38), size("slat", "Slats, height", 60, 5, 600)),
    chair_surfaces,
    draw,
    (CountSpec("slats", "Slats", 0, 12, 3),),
    check,
)
