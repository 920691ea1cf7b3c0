"""A turned stand: a hat stand, a spindle, a newel, with arms and knobs or without."""

from math import pi

from ...measure.drawing import Drawing, Face, box, callout, ellipse, outline, view
from ...measure.lengths import say_length
from ...measure.shapes import sphere, turned_profile
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, Sizes
from .parts import metres, round_flat, size


def stations(s: Sizes) -> tuple[tuple[float, float], ...]:
    """The post as (height, diameter): foot, swell, waist, top."""
    height, post = s["height"] - s["base_height"], s["post"]
    return ((0, post), (height * 0.12, post * 1.6), (height * 0.24, post), (height * 0.86, post * 0.8), (height, post))


def check(s: Sizes) -> tuple[Misfit, ...]:
    """The base carries the post, and leaves it some height."""
    found = []
    if s["base"] < s["post"]:
        says = "The base is narrower than the post."
        found.append(Misfit("base", says, f"at least {say_length(s['post'])}, the post"))
    if s["base_height"] > s["height"] * 0.5:
        says = "The base is more than half of the height."
        found.append(Misfit("base_height", says, f"at most {say_length(s['height'] * 0.5)}"))
    return tuple(found)


def surfaces(s: Sizes) -> tuple[FaceGroup, ...]:
    """Post, base, and per arm its wall and a knob."""
    base, arm, knob, n = s["base"], s["arm"], s["knob"], s["arms"]
    post = turned_profile(stations(s))
    found = [
        FaceGroup("post", "Post", post, f"turned profile, {metres(s['height'] - s['base_height'])} m tall", "Post"),
        round_flat("base-top", "Base, top", "Base", base),
        FaceGroup(
            "base-edge",
            "Base, edge",
            pi * base * s["base_height"] / 1e6,
            f"π × {metres(base)} × {metres(s['base_height'])} m",
            "Base",
        ),
        round_flat("base-under", "Base, underside", "Base", base, bare="stands on it"),
    ]
    if n:
        wall = n * pi * s["arm_diameter"] * arm / 1e6
        how = f"{n:g} × π × {metres(s['arm_diameter'])} × {metres(arm)} m"
        found.append(FaceGroup("arms", "Arms", wall, how, "Arms"))
        found.append(FaceGroup("knobs", "Knobs", n * sphere(knob), f"{n:g} × π × {metres(knob)}² m", "Arms"))
    return tuple(found)


def draw(s: Sizes) -> Drawing:
    """From the side."""
    reach = s["arm"] + s["knob"] if s["arms"] else 0
    wide = max(s["base"], 2 * reach + s["post"])
    middle, height, foot = wide / 2, s["height"], s["height"] - s["base_height"]
    faces = []
    shown = int(s["arms"])
    for k in range(shown):
        left = k % 2 == 0
        y = height * (0.06 + 0.1 * (k // 2))
        x0 = middle - s["arm"] if left else middle
        bar = Face(
            "arms", f"Arm {k + 1}", box(x0, y - s["arm_diameter"] / 2, s["arm"], s["arm_diameter"]), shape="solid"
        )
        x = middle - s["arm"] - s["knob"] if left else middle + s["arm"]
        faces += [
            bar,
            Face("knobs", f"Knob {k + 1}", ellipse(x, y - s["knob"] / 2, s["knob"], s["knob"], 24), shape="solid"),
        ]
    faces.append(Face("post", "Post", outline(middle, stations(s), foot), shape="round"))
    base = s["base"]
    edge = ((0.0, base), (s["base_height"], base))
    faces.append(Face("base-edge", "Base, edge", outline(middle, edge, height), shape="round"))
    callouts = [
        callout("height", "left", 0, 0, height),
        callout("base", "below", middle - base / 2, height, base),
    ]
    return view("", wide, height, faces, callouts)


KIND = PieceKind(
    "turned-stand",
    "Hat stand or turned post",
    (
        size("height", "Height", 1750, 100, 3000),
        size("post", "Post, diameter", 55, 10, 400),
        size("base", "Base, diameter", 420, 20, 1200),
        size("base_height", "Base, height", 40, 2, 400),
        size("arm", "Arm, length", 220, 20, 800, "arms"),
        size("arm_diameter", "Arm, diameter", 26, 5, 120, "arms"),
        size("knob", "Knob, diameter", 45, 5, 200, "arms"),
    ),
    surfaces,
    draw,
    (CountSpec("arms", "Arms", 0, 16, 6),),
    check,
    turned=True,
)
