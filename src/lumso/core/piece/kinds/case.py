"""Boxes to keep things in: cupboard, bookcase, rack, trunk, tray."""

from ...measure.drawing import Drawing, Face, callout, lay_out, view
from ...measure.lengths import say_length
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes
from .parts import band, flat, framework, open_area, openings, pane, size

WIDTH = size("width", "Width", 900, 100, 4000)
HEIGHT = size("height", "Height", 1800, 100, 3000)
DEPTH = size("depth", "Depth", 400, 50, 1200)


def _front_side(s: Sizes, faces: list[Face], side: list[Face]) -> Drawing:
    width, height, depth = s["width"], s["height"], s["depth"]
    front = view("front", width, height, faces, [
        callout("width", "below", 0, height, width), callout("height", "left", 0, 0, height),
    ])  # fmt: skip
    return lay_out(front, view("side", depth, height, side, [callout("depth", "below", 0, height, depth)]))


def check_cupboard(s: Sizes) -> tuple[Misfit, ...]:
    """The plinth must leave room for doors."""
    if s["plinth"] < s["height"] * 0.5:
        return ()
    return (Misfit("plinth", "The plinth leaves no room for doors.", f"less than {say_length(s['height'] / 2)}"),)


def cupboard_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Outside, doors with their edges, plinth; inside, back and underside stay bare."""
    width, height, depth, doors = s["width"], s["height"], s["depth"], s["doors"]
    wide, high = width / doors, height - s["plinth"]
    inside = 2 * depth + width
    return (
        flat("sides", "Sides", "Body", depth, height, 2),
        flat("doors", "Doors", "Doors", wide, high, doors, does=("closes",)),
        flat("door-insides", "Doors, inside", "Doors", wide, high, doors, bare="inside left as it is",
             does=("closes",)),
        band("door-edges", "Door edges", "Doors", doors * 2 * (wide + high), s["door"],
             does=("closes",)),
        band("plinth", "Plinth", "Body", width, s["plinth"]),
        flat("top", "Top", "Body", width, depth, vertical=False,
             bare="above eye level" if height > 1700 else ""),
        band("inside", "Inside", "Inside", high, inside, bare="inside left as it is"),
        flat("shelves", "Shelves, both faces", "Inside", width, depth, 2 * s["shelves"], vertical=False,
             bare="inside left as it is", does=("bears",)),
        flat("back", "Back", "Body", width, height, bare="against the wall"),
        flat("underside", "Underside", "Body", width, depth, vertical=False, bare="not seen"),
    )  # fmt: skip


def draw_cupboard(s: Sizes) -> Drawing:
    """Front and side."""
    width, height = s["width"], s["height"]
    wide, high = width / s["doors"], height - s["plinth"]
    faces = [pane("doors", f"Door {k + 1}", k * wide, 0, wide, high) for k in range(int(s["doors"]))]
    if s["plinth"]:
        faces.append(pane("plinth", "Plinth", 0, high, width, s["plinth"]))
    return _front_side(s, faces, [pane("sides", "Side", 0, 0, s["depth"], height)])


CUPBOARD = PieceKind(
    "cupboard",
    "Cupboard or wardrobe",
    (WIDTH, HEIGHT, DEPTH, size("plinth", "Plinth", 80, 0, 500), size("door", "Door, thickness", 20, 3, 80)),
    cupboard_surfaces,
    draw_cupboard,
    (CountSpec("doors", "Doors", 1, 8, 2), CountSpec("shelves", "Shelves", 0, 12, 3)),
    check_cupboard,
)


def check_bookcase(s: Sizes) -> tuple[Misfit, ...]:
    """Shelves need room between them."""
    boards = s["shelves"] + 2
    if boards * s["board"] < s["height"] * 0.8 and 2 * s["board"] < s["width"] * 0.8:
        return ()
    most = min(s["height"] * 0.8 / boards, s["width"] * 0.4)
    return (Misfit("board", "The boards leave no room between them.", f"less than {say_length(round(most))}"),)


def bookcase_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Outside, front edges, and every face inside; the back stays bare."""
    width, height, depth, board, shelves = s["width"], s["height"], s["depth"], s["board"], s["shelves"]
    inner = width - 2 * board
    clear = height - (shelves + 2) * board
    return (
        flat("sides", "Sides, outside", "Outside", depth, height, 2),
        flat("top", "Top", "Outside", width, depth, vertical=False, bare="above eye level" if height > 1700 else ""),
        band("front-edges", "Front edges", "Outside", 2 * height + (shelves + 2) * inner, board),
        flat(
            "shelves", "Shelves, both faces", "Inside", inner, depth, 2 * (shelves + 1), vertical=False, does=("bears",)
        ),
        flat("sides-inside", "Sides, inside", "Inside", depth, clear, 2),
        flat("back-inside", "Back, inside", "Inside", inner, clear),
        flat("back", "Back, outside", "Outside", width, height, bare="against the wall"),
        flat("underside", "Underside", "Outside", width, depth, vertical=False, bare="not seen"),
    )


def draw_bookcase(s: Sizes) -> Drawing:
    """Front and side."""
    width, height, board, shelves = s["width"], s["height"], s["board"], int(s["shelves"])
    bay = (height - (shelves + 2) * board) / (shelves + 1)
    bays = openings(board, bay, board, shelves + 1)
    faces = framework("front-edges", (0, 0, width, height), [(board, width - board)], bays)
    for k, (y, _) in enumerate(bays, 1):
        faces.append(pane("back-inside", f"Bay {k}", board, y, width - 2 * board, bay))
    return _front_side(s, faces, [pane("sides", "Side", 0, 0, s["depth"], height)])


BOOKCASE = PieceKind(
    "bookcase",
    "Bookcase",
    (WIDTH, HEIGHT, size("depth", "Depth", 300, 50, 900), size("board", "Boards, thickness", 20, 3, 80)),
    bookcase_surfaces,
    draw_bookcase,
    (CountSpec("shelves", "Shelves between", 0, 12, 4),),
    check_bookcase,
)
RACK = PieceKind(
    "rack",
    "Shelf rack",
    (
        size("width", "Width", 700, 100, 3000),
        size("height", "Height", 600, 80, 2500),
        size("depth", "Depth", 180, 30, 800),
        size("board", "Boards, thickness", 18, 3, 60),
    ),
    bookcase_surfaces,
    draw_bookcase,
    (CountSpec("shelves", "Shelves between", 0, 12, 2),),
    check_bookcase,
)


def check_trunk(s: Sizes) -> tuple[Misfit, ...]:
    """The lid is part of the height."""
    if s["lid"] < s["height"]:
        return ()
    return (Misfit("lid", "The lid is as tall as the trunk.", f"less than {say_length(s['height'])}"),)


def trunk_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Lid, its rim, body; inside and underside stay bare."""
    width, depth, height, lid = s["width"], s["depth"], s["height"], s["lid"]
    around = 2 * (width + depth)
    return (
        flat("lid", "Lid, top", "Lid", width, depth, vertical=False, does=("lifts",)),
        band("lid-sides", "Lid, sides", "Lid", around, lid, does=("lifts",)),
        flat("front-back", "Front and back", "Body", width, height - lid, 2),
        flat("ends", "Ends", "Body", depth, height - lid, 2),
        band("inside", "Inside", "Inside", around, height, bare="inside left as it is"),
        flat("underside", "Underside", "Body", width, depth, vertical=False, bare="not seen"),
    )


def draw_trunk(s: Sizes) -> Drawing:
    """Front, end and lid from above."""
    width, depth, height, lid = s["width"], s["depth"], s["height"], s["lid"]
    faces = [
        pane("lid-sides", "Lid, front", 0, 0, width, lid),
        pane("front-back", "Front", 0, lid, width, height - lid),
    ]
    side = [pane("lid-sides", "Lid, end", 0, 0, depth, lid), pane("ends", "End", 0, lid, depth, height - lid)]
    above = view("from above", width, depth, [pane("lid", "Lid", 0, 0, width, depth)])
    return lay_out(_front_side(s, faces, side), above)


TRUNK = PieceKind(
    "trunk",
    "Trunk or chest with a lid",
    (
        size("width", "Length", 900, 100, 2500),
        size("height", "Height", 480, 50, 1200),
        size("depth", "Depth", 450, 50, 1200),
        size("lid", "Lid, height", 80, 5, 600),
    ),
    trunk_surfaces,
    draw_trunk,
    check=check_trunk,
)


def check_tray(s: Sizes) -> tuple[Misfit, ...]:
    """The walls must leave a floor between them."""
    short = min(s["width"], s["depth"])
    if 2 * s["wall"] < short and s["wall"] < s["height"]:
        return ()
    most = min(short / 2, s["height"])
    return (Misfit("wall", "The walls leave no room inside.", f"less than {say_length(most)}"),)


def tray_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Floor, walls inside and out, rim; the underside stays bare."""
    width, depth, height, wall = s["width"], s["depth"], s["height"], s["wall"]
    inner = 2 * (width - 2 * wall + depth - 2 * wall)
    whole = flat("rim", "Rim", "Outside", width, depth, vertical=False)
    floor = flat("floor", "Floor, inside", "Inside", width - 2 * wall, depth - 2 * wall, vertical=False)
    return (
        floor,
        band("walls-inside", "Walls, inside", "Inside", inner, height - wall),
        band("walls-outside", "Walls, outside", "Outside", 2 * (width + depth), height),
        open_area(whole, [floor], "rim", "Rim"),
        flat("underside", "Underside", "Outside", width, depth, vertical=False, bare="not seen"),
    )


def draw_tray(s: Sizes) -> Drawing:
    """From above and from the front."""
    width, depth, height, wall = s["width"], s["depth"], s["height"], s["wall"]
    above = view("from above", width, depth, [
        pane("rim", "Rim", 0, 0, width, depth),
        pane("floor", "Floor", wall, wall, width - 2 * wall, depth - 2 * wall),
    ], [callout("width", "below", 0, depth, width), callout("depth", "right", width, 0, depth)])  # fmt: skip
    front = view("front", width, height, [pane("walls-outside", "Wall", 0, 0, width, height)],
                 [callout("height", "left", 0, 0, height)])  # fmt: skip
    return lay_out(front, above)


TRAY = PieceKind(
    "tray",
    "Tray or open box",
    (
        size("width", "Length", 450, 30, 1500),
        size("depth", "Width", 320, 30, 1200),
        size("height", "Height", 60, 8, 600),
        size("wall", "Wall, thickness", 10, 1, 60),
    ),
    tray_surfaces,
    draw_tray,
    check=check_tray,
)
