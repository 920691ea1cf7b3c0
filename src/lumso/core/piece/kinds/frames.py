"""Things with a frame: picture and mirror frames, doors and panels, columns."""

from math import pi

from ...measure.drawing import Drawing, Face, box, callout, lay_out, outline, view
from ...measure.lengths import say_length
from ...measure.shapes import frustum_wall
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes
from .parts import band, flat, framework, metres, open_area, openings, pane, size


def check_frame(s: Sizes) -> tuple[Misfit, ...]:
    """The rails must leave an opening; a profile is at least as long as its face is wide."""
    found = []
    short = min(s["width"], s["height"])
    if 2 * s["face"] >= short:
        found.append(Misfit("face", "The rails leave no opening.", f"less than {say_length(short / 2)}"))
    if s["profile"] < s["face"]:
        says = "A string laid over the profile cannot be shorter than the face is wide."
        found.append(Misfit("profile", says, f"at least {say_length(s['face'])}"))
    return tuple(found)


def frame_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """The developed profile times the run along the middle of the mitred rails."""
    run = 2 * (s["width"] + s["height"] - 2 * s["face"])
    opening = flat("opening", "Picture or glass", "Frame", s["width"] - 2 * s["face"], s["height"] - 2 * s["face"],
                   bare="glass")  # fmt: skip
    return (
        band("profile", "Profile", "Frame", run, s["profile"]),
        band("rear", "Back of the rails", "Frame", run, s["face"], bare="against the wall"),
        opening,
    )


def _mitred(width: float, height: float, face: float) -> list[Face]:
    """The four sides of a frame, mitred at their corners."""
    outer = box(0, 0, width, height)
    inner = box(face, face, width - 2 * face, height - 2 * face)
    names = ("Top side", "Right side", "Foot", "Left side")
    return [
        Face("profile", name, (outer[k], outer[(k + 1) % 4], inner[(k + 1) % 4], inner[k]))
        for k, name in enumerate(names)
    ]


def draw_frame(s: Sizes) -> Drawing:
    """From the front."""
    width, height, face = s["width"], s["height"], s["face"]
    faces = [*_mitred(width, height, face), pane("opening", "Opening", face, face, width - 2 * face, height - 2 * face)]
    callouts = [
        callout("width", "below", 0, height, width),
        callout("height", "left", 0, 0, height),
        callout("face", "above", 0, 0, face),
    ]
    return view("", width, height, faces, callouts)


FRAME = PieceKind(
    "frame",
    "Picture or mirror frame",
    (
        size("width", "Width, outside", 600, 40, 3000),
        size("height", "Height, outside", 800, 40, 3000),
        size("face", "Rail, width of the face", 70, 5, 400),
        size("profile", "Profile, laid over with a string", 130, 5, 900),
    ),
    frame_surfaces,
    draw_frame,
    check=check_frame,
)


def panel(s: Sizes) -> tuple[float, float]:
    """Width and height of one panel: what the stiles and rails leave."""
    rows, columns, stile = s["rows"], s["columns"], s["stile"]
    return (s["width"] - (columns + 1) * stile) / columns, (s["height"] - (rows + 1) * stile) / rows


def check_door(s: Sizes) -> tuple[Misfit, ...]:
    """Stiles and rails must leave panels."""
    wide, high = panel(s)
    if wide >= 10 and high >= 10:
        return ()
    most = max(min((s["width"] - 10 * s["columns"]) / (s["columns"] + 1),
                   (s["height"] - 10 * s["rows"]) / (s["rows"] + 1)), 0)  # fmt: skip
    says = f"With these stiles a panel would be {wide:.0f} × {high:.0f} mm."
    return (Misfit("stile", says, f"at most {say_length(round(most))}, or fewer panels"),)


def door_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Frame and panels of one or both faces, and the edges."""
    wide, high = panel(s)
    both = s["faces"]
    panels = flat("panels", "Panels", "Panels", wide, high, s["rows"] * s["columns"] * both)
    whole = flat("frame", "Frame", "Frame", s["width"], s["height"], both)
    other = [] if both > 1 else [flat("other-face", "Other face", "Frame", s["width"], s["height"], bare="not seen")]
    edges = band("edges", "Edges", "Frame", 2 * (s["width"] + s["height"]), s["thickness"])
    return (open_area(whole, [panels], "frame", "Frame"), panels, edges, *other)


def draw_door(s: Sizes) -> Drawing:
    """From the front."""
    width, height, stile = s["width"], s["height"], s["stile"]
    wide, high = panel(s)
    columns, rows = openings(stile, wide, stile, s["columns"]), openings(stile, high, stile, s["rows"])
    faces = framework("frame", (0, 0, width, height), columns, rows)
    for row, (y, _) in enumerate(rows, 1):
        for column, (x, _) in enumerate(columns, 1):
            faces.append(pane("panels", f"Panel {row}.{column}", x, y, wide, high))
    callouts = [
        callout("width", "below", 0, height, width),
        callout("height", "left", 0, 0, height),
        callout("stile", "above", 0, 0, stile),
    ]
    return view("", width, height, faces, callouts)


DOOR = PieceKind(
    "door",
    "Door or panelling",
    (
        size("width", "Width", 800, 100, 3000),
        size("height", "Height", 2000, 100, 4000),
        size("thickness", "Thickness", 40, 3, 120),
        size("stile", "Stiles and rails", 110, 5, 600),
    ),
    door_surfaces,
    draw_door,
    (
        CountSpec("rows", "Panels, rows", 1, 6, 2),
        CountSpec("columns", "Panels, columns", 1, 6, 2),
        CountSpec("faces", "Faces coated", 1, 2, 2),
    ),
    check_door,
)


def check_column(s: Sizes) -> tuple[Misfit, ...]:
    """Plinth and capital leave a shaft; flutes fit round it."""
    found = []
    if s["plinth_height"] + s["capital_height"] >= s["height"]:
        most = s["height"] - s["capital_height"]
        found.append(Misfit("plinth_height", "Plinth and capital leave no shaft.", f"less than {say_length(most)}"))
    if s["plinth"] < s["bottom"]:
        found.append(Misfit("plinth", "The plinth is narrower than the shaft.", f"at least {say_length(s['bottom'])}"))
    around = pi * min(s["top"], s["bottom"])
    if s["flutes"] * s["flute"] > around:
        most = around / max(s["flutes"], 1)
        found.append(Misfit("flute", "The flutes do not fit round the shaft.", f"at most {say_length(round(most, 1))}"))
    return tuple(found)


def column_surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Plinth, shaft with half-round flutes, capital. A flute turns its width into π/2 of it."""
    shaft = s["height"] - s["plinth_height"] - s["capital_height"]
    smooth = frustum_wall(s["top"], s["bottom"], shaft)
    more = s["flutes"] * s["flute"] * shaft * (pi / 2 - 1) / 1e6
    how = f"frustum ø {metres(s['top'])} to {metres(s['bottom'])} m, {metres(shaft)} m tall"
    if s["flutes"]:
        how += f" + {s['flutes']:g} flutes × {metres(s['flute'])} m × (π ÷ 2 − 1)"
    foot = s["plinth"]
    ledge = foot * foot / 1e6 - pi * s["bottom"] ** 2 / 4 / 1e6
    return (
        FaceGroup("shaft", "Shaft", smooth + more, how, "Shaft"),
        band("plinth", "Plinth, sides", "Plinth", 4 * foot, s["plinth_height"]),
        FaceGroup(
            "ledge", "Plinth, ledge", ledge, f"{metres(foot)}² − π × {metres(s['bottom'])}² ÷ 4 m", "Plinth", False
        ),
        band("capital", "Capital, sides", "Capital", 4 * foot, s["capital_height"]),
        flat("capital-top", "Capital, top", "Capital", foot, foot, vertical=False),
        flat("underside", "Underside", "Plinth", foot, foot, vertical=False, bare="stands on it"),
    )


def draw_column(s: Sizes) -> Drawing:
    """From the front and from above."""
    foot, height = s["plinth"], s["height"]
    shaft = height - s["plinth_height"] - s["capital_height"]
    turning = outline(foot / 2, ((0, s["bottom"]), (shaft, s["top"])), height - s["plinth_height"])
    faces = [
        pane("capital", "Capital", 0, 0, foot, s["capital_height"]),
        Face("shaft", "Shaft", turning, shape="round"),
        pane("plinth", "Plinth", 0, height - s["plinth_height"], foot, s["plinth_height"]),
    ]
    front = view("front", foot, height, faces, [
        callout("height", "left", 0, 0, height), callout("plinth", "below", 0, height, foot),
    ])  # fmt: skip
    return lay_out(front, view("from above", foot, foot, [pane("capital-top", "Top", 0, 0, foot, foot)]))


COLUMN = PieceKind(
    "column",
    "Pedestal or column",
    (
        size("height", "Height", 1000, 100, 5000),
        size("top", "Shaft ø, at the top", 220, 20, 1200),
        size("bottom", "Shaft ø, at the foot", 260, 20, 1200),
        size("plinth", "Plinth and capital, width", 340, 30, 1600),
        size("plinth_height", "Plinth, height", 120, 0, 1000),
        size("capital_height", "Capital, height", 80, 0, 1000),
        size("flute", "Flutes, width", 24, 1, 200),
    ),
    column_surfaces,
    draw_column,
    (CountSpec("flutes", "Flutes", 0, 40, 16),),
    check_column,
)
