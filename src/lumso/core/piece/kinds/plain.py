"""Flat things: a wall, a floor, a cloth, a hearth of brick."""

from ...measure.drawing import Drawing, callout, lay_out, view
from ...measure.lengths import say_length
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes
from .parts import band, flat, open_area, pane, size


def _openings(s: Sizes) -> list[FaceGroup]:
    return [
        flat("windows", "Windows", "Wall", s["window_width"], s["window_height"], s["windows"], bare="glass and frame"),
        flat(
            "doors",
            "Doors",
            "Wall",
            s["door_width"],
            s["door_height"],
            s["doors"],
            bare="a piece of its own",
            does=("closes",),
        ),
    ]


def check_wall(s: Sizes) -> tuple[Misfit, ...]:
    """Openings must fit into the wall."""
    found = []
    taken = s["windows"] * s["window_width"] + s["doors"] * s["door_width"]
    if taken > s["length"]:
        says = f"Windows and doors together are {say_length(taken)} wide, the wall {say_length(s['length'])}."
        slug = "window_width" if s["windows"] else "door_width"
        found.append(Misfit(slug, says, f"openings that come to at most {say_length(s['length'])}"))
    for kind in ("window", "door"):
        if s[f"{kind}s"] and s[f"{kind}_height"] > s["height"]:
            says = f"The {kind} is taller than the wall."
            found.append(Misfit(f"{kind}_height", says, f"at most {say_length(s['height'])}"))
    return tuple(found)


def wall_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """The wall less its openings; the skirting is left out of it."""
    whole = flat("wall", "Wall", "Wall", s["length"], s["height"])
    skirting = band("skirting", "Skirting", "Wall", s["length"] - s["doors"] * s["door_width"], s["skirting"],
                    bare="a treatment of its own")  # fmt: skip
    openings = _openings(s)
    return (open_area(whole, [*openings, skirting], "wall", "Wall"), skirting, *openings)


def draw_wall(s: Sizes) -> Drawing:
    """The wall with its openings spread evenly along it."""
    length, height = s["length"], s["height"]
    faces = [pane("wall", "Wall", 0, 0, length, height)]
    if s["skirting"]:
        faces.append(pane("skirting", "Skirting", 0, height - s["skirting"], length, s["skirting"]))
    kinds = ["door"] * int(s["doors"]) + ["window"] * int(s["windows"])
    spare = length - sum(s[f"{kind}_width"] for kind in kinds)
    x = gap = spare / (len(kinds) + 1)
    for k, kind in enumerate(kinds):
        wide, high = s[f"{kind}_width"], s[f"{kind}_height"]
        y = height - high if kind == "door" else (height - high) * 0.45
        faces.append(pane(f"{kind}s", f"{kind.title()} {k + 1}", x, y, wide, high))
        x += wide + gap
    callouts = [callout("length", "below", 0, height, length), callout("height", "left", 0, 0, height)]
    return view("", length, height, faces, callouts)


WALL = PieceKind(
    "wall",
    "Wall with openings",
    (
        size("length", "Length", 4000, 200, 30000),
        size("height", "Height", 2500, 200, 8000),
        size("skirting", "Skirting, height", 120, 0, 500),
        size("window_width", "Window, width", 1000, 100, 6000, "windows"),
        size("window_height", "Window, height", 1200, 100, 5000, "windows"),
        size("door_width", "Door, width", 850, 100, 4000, "doors"),
        size("door_height", "Door, height", 2050, 100, 5000, "doors"),
    ),
    wall_surfaces,
    draw_wall,
    (CountSpec("windows", "Windows", 0, 12, 1), CountSpec("doors", "Doors", 0, 8, 1)),
    check_wall,
)


def check_hearth(s: Sizes) -> tuple[Misfit, ...]:
    """The opening must leave brick beside and above it."""
    found = []
    for slug, whole in (("opening_width", "width"), ("opening_height", "height")):
        if s[slug] >= s[whole]:
            says = f"The opening is as large as the {whole} of the breast."
            found.append(Misfit(slug, says, f"less than {say_length(s[whole])}"))
    return tuple(found)


def hearth_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Front less the opening, two returns; the inside of the opening stays bare."""
    front = flat("front", "Front", "Brick", s["width"], s["height"])
    hole = flat("opening", "Opening", "Brick", s["opening_width"], s["opening_height"])
    around = 2 * s["opening_height"] + s["opening_width"]
    return (
        open_area(front, [hole], "front", "Front"),
        flat("returns", "Returns", "Brick", s["depth"], s["height"], 2),
        band("throat", "Inside of the opening", "Brick", around, s["depth"], bare="soot and heat"),
    )


def draw_hearth(s: Sizes) -> Drawing:
    """Front and return."""
    width, height, depth = s["width"], s["height"], s["depth"]
    wide, high = s["opening_width"], s["opening_height"]
    faces = [
        pane("front", "Front", 0, 0, width, height),
        pane("throat", "Opening", (width - wide) / 2, height - high, wide, high),
    ]
    callouts = [
        callout("width", "below", 0, height, width),
        callout("height", "left", 0, 0, height),
        callout("opening_width", "above", (width - wide) / 2, height - high, wide),
    ]
    front = view("front", width, height, faces, callouts)
    side = view("return", depth, height, [pane("returns", "Return", 0, 0, depth, height)],
                [callout("depth", "below", 0, height, depth)])  # fmt: skip
    return lay_out(front, side)


HEARTH = PieceKind(
    "hearth",
    "Hearth or chimney breast",
    (
        size("width", "Width", 1500, 300, 5000),
        size("height", "Height", 2300, 300, 6000),
        size("depth", "Depth of the returns", 400, 0, 1500),
        size("opening_width", "Opening, width", 800, 50, 4000),
        size("opening_height", "Opening, height", 900, 50, 4000),
    ),
    hearth_surfaces,
    draw_hearth,
    check=check_hearth,
)


def _sheet(slug: str, name: str, group: str, under: str) -> PieceKind:
    def surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
        return (
            flat("face", name, group, s["length"], s["width"], vertical=False),
            flat("underside", "Other side", group, s["length"], s["width"], vertical=False, bare=under),
        )

    def draw(s: Sizes) -> Drawing:
        faces = [pane("face", name, 0, 0, s["length"], s["width"])]
        callouts = [
            callout("length", "below", 0, s["width"], s["length"]),
            callout("width", "right", s["length"], 0, s["width"]),
        ]
        return view("", s["length"], s["width"], faces, callouts)

    sizes = (size("length", "Length", 3000, 50, 30000), size("width", "Width", 2000, 50, 30000))
    return PieceKind(slug, name, sizes, surfaces, draw)


FLOOR = _sheet("floor", "Floor boards", "Floor", "the joists")
CLOTH = _sheet("cloth", "Cloth", "Cloth", "painted on one side")
