"""A chest of drawers, rows × columns."""

from ...measure.drawing import Drawing, callout, lay_out, view
from ...measure.lengths import say_length
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes
from .parts import band, flat, framework, open_area, openings, pane, size


def drawer(s: Sizes) -> tuple[float, float]:
    """Width and height of one drawer front: what the rails and the plinth leave."""
    wide = (s["width"] - (s["columns"] + 1) * s["rail"]) / s["columns"]
    high = (s["height"] - s["top"] - s["plinth"] - (s["rows"] + 1) * s["rail"]) / s["rows"]
    return wide, high


def check(s: Sizes) -> tuple[Misfit, ...]:
    """Drawers need room between the rails."""
    wide, high = drawer(s)
    if wide >= 20 and high >= 20:
        return ()
    across = (s["width"] - 20 * s["columns"]) / (s["columns"] + 1)
    down = (s["height"] - s["top"] - s["plinth"] - 20 * s["rows"]) / (s["rows"] + 1)
    most = max(min(across, down), 0)
    says = f"With these rails a drawer front would be {wide:.0f} × {high:.0f} mm."
    return (Misfit("rail", says, f"rails of at most {say_length(round(most))}, or fewer drawers"),)


def surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Top, sides, frame, drawer fronts; back and underside stay bare."""
    width, height, depth, top = s["width"], s["height"], s["depth"], s["top"]
    wide, high = drawer(s)
    fronts = flat("drawer-fronts", "Drawer fronts", "Drawer fronts", wide, high,
                  s["rows"] * s["columns"], does=("slides",))  # fmt: skip
    whole = flat("front", "Front", "Body", width, height - top)
    return (
        flat("top", "Top", "Top", width, depth, vertical=False),
        band("top-edges", "Top edges", "Top", width + 2 * depth, top),
        flat("sides", "Sides", "Body", depth, height - top, 2),
        open_area(whole, [fronts], "frame", "Front frame"),
        fronts,
        flat("back", "Back", "Body", width, height - top, bare="against the wall"),
        flat("underside", "Underside", "Body", width, depth, vertical=False, bare="not seen"),
    )


def draw(s: Sizes) -> Drawing:
    """Front and side."""
    width, height, depth, top, rail = s["width"], s["height"], s["depth"], s["top"], s["rail"]
    wide, high = drawer(s)
    columns, rows = openings(rail, wide, rail, s["columns"]), openings(top + rail, high, rail, s["rows"])
    faces = [
        pane("top-edges", "Top edge", 0, 0, width, top),
        *framework("frame", (0, top, width, height - top), columns, rows),
    ]
    for row, (y, _) in enumerate(rows, 1):
        for column, (x, _) in enumerate(columns, 1):
            faces.append(pane("drawer-fronts", f"Drawer {row}.{column}", x, y, wide, high))
    front = view("front", width, height, faces, [
        callout("width", "below", 0, height, width), callout("height", "left", 0, 0, height),
    ])  # fmt: skip
    sides = [
        pane("top-edges", "Top edge", 0, 0, depth, top),
        pane("sides", "Side", 0, top, depth, height - top),
    ]
    side = view("side", depth, height, sides, [callout("depth", "below", 0, height, depth)])
    above = view("from above", width, depth, [pane("top", "Top", 0, 0, width, depth)])
    return lay_out(front, side, above)


KIND = PieceKind(
    "chest-of-drawers",
    "Chest of drawers",
    (
        size("width", "Width", 900, 200, 2500),
        size("height", "Height", 850, 200, 2200),
        size("depth", "Depth", 450, 150, 900),
        size("top", "Top, thickness", 22, 5, 80),
        size("rail", "Rails between drawers", 20, 0, 200),
        size("plinth", "Plinth", 80, 0, 400),
    ),
    surfaces,
    draw,
    (CountSpec("rows", "Drawers down", 1, 10, 3), CountSpec("columns", "Drawers across", 1, 8, 1)),
    check,
)
