"""Every kind of piece against a part list summed by hand, and the laws they all keep."""

from dataclasses import replace
from math import hypot, pi

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.job.areas import check_sizes, sizes_of
from lumso.core.job.job import Answered, Job, Zone
from lumso.core.measure.lengths import Length, parse_length
from lumso.core.piece.kinds import KINDS, suggested_zones
from lumso.core.piece.kinds.parts import oval_round
from lumso.core.piece.kinds.spindle import stations
from lumso.core.piece.piece import Band, FreePart, Piece, Shape
from tests.conftest import planned

SLUGS = sorted(KINDS.keys() - {"parts"})


def areas(slug: str, **sizes: float) -> dict[str, float]:
    kind = KINDS[slug]
    return {s.slug: s.area_m2 for s in kind.surfaces({**kind.usual(), **sizes})}


# Each by hand, in metres: a tape, a pencil and the part list.
BY_HAND: list[tuple[str, dict[str, float], dict[str, float]]] = [
    ("board", {"length": 1000, "width": 500, "thickness": 20}, {"top": 0.5, "edges": 0.06, "underside": 0.5}),
    (
        "chest-of-drawers",
        {"width": 900, "height": 850, "depth": 450, "top": 20, "rail": 20, "plinth": 80, "rows": 3, "columns": 2},
        {
            "top": 0.9 * 0.45,
            "top-edges": (0.9 + 2 * 0.45) * 0.02,
            "sides": 2 * 0.45 * 0.83,
            # (900 − 3·20)/2 = 420 wide, (850 − 20 − 80 − 4·20)/3 = 223.33 high, six of them
            "drawer-fronts": 6 * 0.42 * 0.67 / 3,
            "frame": 0.9 * 0.83 - 6 * 0.42 * 0.67 / 3,
            "back": 0.9 * 0.83,
        },
    ),
    (
        "cupboard",
        {"width": 1200, "height": 1900, "depth": 600, "plinth": 100, "door": 20, "doors": 2, "shelves": 3},
        {
            "sides": 2 * 0.6 * 1.9,
            "doors": 1.2 * 1.8,
            "door-edges": 2 * 2 * (0.6 + 1.8) * 0.02,
            "plinth": 1.2 * 0.1,
            "inside": 1.8 * (0.6 + 0.6 + 1.2),
            "shelves": 3 * 2 * 1.2 * 0.6,
        },
    ),
    (
        "table",
        {"length": 1400, "width": 800, "height": 750, "thickness": 25, "apron": 90, "leg": 60, "foot": 40, "leaves": 1,
         "leaf": 400},
        {
            "top": 1.8 * 0.8,
            "top-edges": 2 * (1.8 + 0.8) * 0.025,
            "apron": 2 * (1.28 + 0.68) * 0.09,
            "legs": 4 * 4 * 0.05 * hypot(0.725, 0.01),
        },
    ),
    (
        "round-table",
        {"diameter": 1000, "height": 740, "thickness": 20, "leg": 50, "foot": 30, "legs": 4},
        {"top": pi / 4, "top-edges": pi * 0.02, "legs": 4 * pi * 0.04 * hypot(0.72, 0.01)},
    ),
    (
        "oval-table",
        {"length": 1200, "width": 800, "height": 750, "thickness": 25, "leg": 50, "foot": 30, "legs": 4},
        {"top": 0.7540, "top-edges": 3.1731 * 0.025, "legs": 4 * pi * 0.04 * hypot(0.725, 0.01)},
    ),
    (
        "stool",
        {"diameter": 330, "height": 450, "thickness": 30, "leg": 50, "foot": 30, "legs": 3},
        {"top": pi * 0.165**2, "top-edges": pi * 0.33 * 0.03, "legs": 3 * 0.05279},
    ),
    (
        "bench",
        {"width": 1400, "depth": 380, "height": 450, "thickness": 30, "leg": 60, "back": 400},
        {"seat": 1.4 * 0.38, "seat-edges": 2 * 1.78 * 0.03, "legs": 4 * 4 * 0.06 * 0.42, "back": 2 * 1.4 * 0.4},
    ),
    (
        "chair",
        {"width": 430, "depth": 420, "height": 450, "thickness": 30, "leg": 40, "back": 450, "slat": 60, "slats": 3},
        {"seat": 0.43 * 0.42, "legs": 4 * 4 * 0.04 * 0.42, "posts": 2 * 4 * 0.04 * 0.45, "slats": 3 * 2 * 0.35 * 0.06},
    ),
    (
        "bookcase",
        {"width": 900, "height": 1800, "depth": 300, "board": 20, "shelves": 4},
        {
            "sides": 2 * 0.3 * 1.8,
            "front-edges": (2 * 1.8 + 6 * 0.86) * 0.02,
            # six boards: four with two faces inside, top and bottom with one
            "shelves": 10 * 0.86 * 0.3,
            "sides-inside": 2 * 0.3 * (1.8 - 6 * 0.02),
            "back-inside": 0.86 * (1.8 - 6 * 0.02),
        },
    ),
    (
        "rack",
        {"width": 700, "height": 600, "depth": 180, "board": 20, "shelves": 1},
        {"sides": 2 * 0.18 * 0.6, "shelves": 4 * 0.66 * 0.18, "back-inside": 0.66 * 0.54},
    ),
    (
        "trunk",
        {"width": 900, "height": 480, "depth": 450, "lid": 80},
        {"lid": 0.405, "lid-sides": 2.7 * 0.08, "front-back": 2 * 0.9 * 0.4, "ends": 2 * 0.45 * 0.4},
    ),
    (
        "tray",
        {"width": 450, "depth": 320, "height": 60, "wall": 10},
        {
            "floor": 0.43 * 0.3,
            "walls-inside": 2 * (0.43 + 0.3) * 0.05,
            "walls-outside": 2 * (0.45 + 0.32) * 0.06,
            "rim": 0.45 * 0.32 - 0.43 * 0.3,
        },
    ),
    (
        "frame",
        {"width": 600, "height": 800, "face": 70, "profile": 130},
        {"profile": 2 * (0.53 + 0.73) * 0.13, "opening": 0.46 * 0.66},
    ),
    (
        "door",
        {"width": 800, "height": 2000, "thickness": 40, "stile": 100, "rows": 2, "columns": 2, "faces": 2},
        {"panels": 2 * 4 * 0.25 * 0.85, "frame": 2 * (1.6 - 4 * 0.25 * 0.85), "edges": 2 * 2.8 * 0.04},
    ),
    (
        "column",
        {"height": 1000, "top": 250, "bottom": 250, "plinth": 340, "plinth_height": 120, "capital_height": 80,
         "flute": 24, "flutes": 16},
        {
            "shaft": pi * 0.25 * 0.8 + 16 * 0.024 * 0.8 * (pi / 2 - 1),
            "plinth": 4 * 0.34 * 0.12,
            "capital": 4 * 0.34 * 0.08,
            "ledge": 0.34**2 - pi * 0.125**2,
        },
    ),
    (
        "turned-stand",
        {"arms": 6, "arm": 220, "arm_diameter": 26, "knob": 45, "base": 420, "base_height": 40},
        {"arms": 6 * pi * 0.026 * 0.22, "knobs": 6 * pi * 0.045**2, "base-edge": pi * 0.42 * 0.04},
    ),
    (
        "wall",
        {"length": 4000, "height": 2500, "skirting": 100, "window_width": 1000, "window_height": 1200, "windows": 1,
         "door_width": 850, "door_height": 2050, "doors": 1},
        {"wall": 10 - 1.2 - 0.85 * 2.05 - 3.15 * 0.1, "skirting": 3.15 * 0.1, "windows": 1.2, "doors": 0.85 * 2.05},
    ),
    (
        "hearth",
        {"width": 1500, "height": 2300, "depth": 400, "opening_width": 800, "opening_height": 900},
        {"front": 1.5 * 2.3 - 0.72, "returns": 2 * 0.4 * 2.3, "throat": (0.8 + 2 * 0.9) * 0.4},
    ),
    ("floor", {"length": 4000, "width": 3000}, {"face": 12}),
    ("cloth", {"length": 2000, "width": 1500}, {"face": 3, "underside": 3}),
]  # fmt: skip


@pytest.mark.parametrize(("slug", "sizes", "parts"), BY_HAND, ids=[case[0] for case in BY_HAND])
def test_a_piece_is_the_sum_of_its_parts(slug: str, sizes: dict[str, float], parts: dict[str, float]) -> None:
    got = areas(slug, **sizes)
    assert {name: got[name] for name in parts} == pytest.approx(parts, rel=2e-4)


def test_every_kind_has_a_part_list_of_its_own() -> None:
    assert {case[0] for case in BY_HAND} == set(SLUGS)
    assert len(KINDS) >= 18


@pytest.mark.parametrize("slug", SLUGS)
@given(k=st.floats(0.5, 2))
def test_scaling_sizes_by_k_scales_area_by_k_squared(slug: str, k: float) -> None:
    kind = KINDS[slug]
    scaled = {s.slug: s.usual_mm * k for s in kind.sizes}
    usual, larger = areas(slug), areas(slug, **scaled)
    assert larger == pytest.approx({name: area * k * k for name, area in usual.items()})


@pytest.mark.parametrize("slug", SLUGS)
def test_the_usual_piece_is_possible_and_has_zones(slug: str) -> None:
    kind = KINDS[slug]
    assert kind.check(kind.usual()) == ()
    zones = suggested_zones(kind)
    assert zones
    coated = [s for _, surfaces in zones for s in surfaces]
    assert len(coated) == len(set(coated))


@pytest.mark.parametrize("slug", SLUGS)
def test_the_drawing_shows_known_surfaces_and_sizes_inside_its_box(slug: str) -> None:
    kind = KINDS[slug]
    drawing = kind.draw(kind.usual())
    assert {f.surface for f in drawing.faces} <= {s.slug for s in kind.surfaces(kind.usual())}
    sizes = {s.slug for s in kind.sizes}
    assert {c.size for c in drawing.callouts} <= sizes
    assert len({c.size for c in drawing.callouts}) >= min(2, len(sizes))
    slack = 1e-6 * max(drawing.width, drawing.height)
    for face in drawing.faces:
        assert all(-slack <= p.x <= drawing.width + slack for p in face.outline), face.name
        assert all(-slack <= p.y <= drawing.height + slack for p in face.outline), face.name


def test_a_drawing_is_to_scale() -> None:
    drawing = KINDS["chest-of-drawers"].draw(KINDS["chest-of-drawers"].usual())
    callout = next(c for c in drawing.callouts if c.size == "width")
    assert callout.end.x - callout.start.x == pytest.approx(900)


def polygon_area(points: object) -> float:
    xy = np.array([(p.x, p.y) for p in points])  # type: ignore[attr-defined]
    x, y = xy[:, 0], xy[:, 1]
    return float(abs(np.dot(x, np.roll(y, 1)) - np.dot(y, np.roll(x, 1))) / 2)


@pytest.mark.parametrize(("rows", "columns"), [(1, 1), (3, 2), (5, 6)])
def test_drawn_drawers_have_the_area_they_are_counted_with(rows: int, columns: int) -> None:
    kind = KINDS["chest-of-drawers"]
    sizes = {**kind.usual(), "width": 1600.0, "rows": rows, "columns": columns}
    fronts = [f for f in kind.draw(sizes).faces if f.surface == "drawer-fronts"]
    assert len(fronts) == rows * columns
    drawn = sum(polygon_area(f.outline) for f in fronts) / 1e6
    assert drawn == pytest.approx(areas("chest-of-drawers", **sizes)["drawer-fronts"])


def test_a_turned_post_agrees_with_a_mesh() -> None:
    sizes = KINDS["turned-stand"].usual()
    line = np.array([(d / 2, h) for h, d in stations(sizes)])
    closed = np.vstack([[0, line[0, 1]], line, [0, line[-1, 1]]])
    mesh = trimesh.creation.revolve(closed, sections=720)
    ends = pi * (line[0, 0] ** 2 + line[-1, 0] ** 2)
    assert areas("turned-stand")["post"] == pytest.approx((mesh.area - ends) / 1e6, rel=1e-3)


@pytest.mark.parametrize(
    ("slug", "sizes", "extents", "surfaces"),
    [
        ("trunk", {"width": 900, "height": 480, "depth": 450}, (900, 450, 480),
         ("lid", "lid-sides", "front-back", "ends", "underside")),
        ("board", {"length": 1000, "width": 500, "thickness": 20}, (1000, 500, 20), ("top", "edges", "underside")),
    ],
)  # fmt: skip
def test_closed_boxes_agree_with_a_mesh(
    slug: str, sizes: dict[str, float], extents: tuple[float, ...], surfaces: tuple[str, ...]
) -> None:
    got = areas(slug, **sizes)
    assert sum(got[s] for s in surfaces) == pytest.approx(trimesh.creation.box(extents=extents).area / 1e6)


def test_round_legs_agree_with_a_mesh() -> None:
    profile = np.array([(0, 0), (15, 0), (25, 420), (0, 420)])
    mesh = trimesh.creation.revolve(profile, sections=720)
    wall = (mesh.area - pi * (15**2 + 25**2)) / 1e6
    assert areas("stool", height=450, thickness=30, leg=50, foot=30, legs=1)["legs"] == pytest.approx(wall, rel=1e-4)


def test_the_way_round_an_oval_agrees_with_a_polygon() -> None:
    t = np.linspace(0, 2 * pi, 20_001)
    x, y = 600 * np.cos(t), 400 * np.sin(t)
    assert oval_round(1200, 800) == pytest.approx(float(np.hypot(np.diff(x), np.diff(y)).sum()), rel=1e-6)


def sized(**mm: float) -> dict[str, Length]:
    return {slug: Length(v, f"{v:g}") for slug, v in mm.items()}


IMPOSSIBLE = [
    ("chest-of-drawers", {"rail": 200}, {"rows": 10}, "/piece/sizes/rail"),
    ("wall", {"window_width": 5000}, {}, "/piece/sizes/window_width"),
    ("wall", {"door_height": 3000}, {}, "/piece/sizes/door_height"),
    ("hearth", {"opening_width": 1600}, {}, "/piece/sizes/opening_width"),
    ("frame", {"face": 350}, {}, "/piece/sizes/face"),
    ("frame", {"profile": 60}, {}, "/piece/sizes/profile"),
    ("door", {"stile": 300}, {}, "/piece/sizes/stile"),
    ("trunk", {"lid": 500, "height": 400}, {}, "/piece/sizes/lid"),
    ("tray", {"wall": 60, "height": 50}, {}, "/piece/sizes/wall"),
    ("table", {"apron": 390, "height": 300}, {}, "/piece/sizes/apron"),
    ("table", {"leg": 300, "width": 400}, {}, "/piece/sizes/leg"),
    ("chair", {"slat": 500}, {"slats": 2}, "/piece/sizes/slat"),
    ("bench", {"leg": 200, "depth": 300}, {}, "/piece/sizes/leg"),
    ("bookcase", {"board": 80, "height": 300}, {}, "/piece/sizes/board"),
    ("cupboard", {"plinth": 480, "height": 900}, {}, "/piece/sizes/plinth"),
    ("column", {"flute": 100}, {}, "/piece/sizes/flute"),
    ("column", {"plinth_height": 950}, {}, "/piece/sizes/plinth_height"),
    ("column", {"plinth": 200}, {}, "/piece/sizes/plinth"),
    ("turned-stand", {"base": 40}, {}, "/piece/sizes/base"),
    ("turned-stand", {"base_height": 400, "height": 700}, {}, "/piece/sizes/base_height"),
    ("chest-of-drawers", {}, {"rows": 99}, "/piece/counts/rows"),
    ("chest-of-drawers", {}, {"hats": 1}, "/piece/counts/hats"),
    ("board", {"depth": 10}, {}, "/piece/sizes/depth"),
]


@pytest.mark.parametrize(("slug", "mm", "counts", "at"), IMPOSSIBLE, ids=[f"{c[0]} {c[3]}" for c in IMPOSSIBLE])
def test_impossible_pieces_are_refused_at_the_field_with_the_bound(
    slug: str, mm: dict[str, float], counts: dict[str, int], at: str
) -> None:
    kind = KINDS[slug]
    usual = {s.slug: s.usual_mm for s in kind.sizes}
    problems = check_sizes(Piece(slug, sized(**{**usual, **mm}), counts), kind)
    assert at in [p.at for p in problems]
    assert all(p.allowed and p.says for p in problems)


@pytest.mark.parametrize("slug", ["chest-of-drawers", "cupboard", "bookcase", "table", "door", "wall"])
def test_zones_and_what_is_left_out_make_the_whole(rack: Job, slug: str) -> None:
    kind = KINDS[slug]
    base = rack.zones[0]
    zones = tuple(
        Zone(f"z{i}", name, base.ground, surfaces, base.layers)
        for i, (name, surfaces) in enumerate(suggested_zones(kind))
    )
    piece = Piece(slug, sized(**{s.slug: s.usual_mm for s in kind.sizes}))
    made = planned(replace(rack, piece=piece, zones=zones))
    assert made.problems == ()
    in_zones = sum(z.area.value for z in made.zones if z.area)
    left = sum(s.area_m2 for s in made.surfaces if not s.zone)
    assert in_zones + left == pytest.approx(sum(s.area_m2 for s in kind.surfaces(kind.usual())))
    assert all(s.why for s in made.surfaces if not s.zone)


def test_splitting_a_zone_keeps_its_area(rack: Job) -> None:
    zone = rack.zones[0]
    one = planned(rack).zones[0].area
    two = planned(replace(rack, zones=(replace(zone, surfaces=("top",)), replace(zone, id="e", surfaces=("edges",)))))
    parts = [z.area.value for z in two.zones if z.area]
    assert one is not None
    assert sum(parts) == pytest.approx(one.value)


def test_a_surface_in_two_zones_is_a_problem(rack: Job) -> None:
    made = planned(replace(rack, zones=(*rack.zones, replace(rack.zones[0], id="again"))))
    assert made.problems[0].at == "/zones/1/surfaces"


def test_relief_and_like_pieces_multiply_and_say_so(rack: Job) -> None:
    assert rack.piece
    zone = replace(rack.zones[0], relief="reeded")
    area = planned(replace(rack, piece=replace(rack.piece, like=3), zones=(zone,))).zones[0].area
    assert area is not None
    assert area.value == pytest.approx(0.56 * 3 * 1.5708)
    assert [s.name for s in area.steps][-2:] == ["All of them", "With relief"]
    unknown = planned(replace(rack, zones=(replace(zone, relief="furry"),)))
    assert unknown.problems[0].at == "/zones/0/relief"


def band(width: str) -> Band:
    return Band("top", "glue face", parse_length("50 cm"), parse_length(width), 2)


def test_bands_are_taken_off_the_surface_they_lie_on(rack: Job) -> None:
    assert rack.piece
    area = planned(replace(rack, piece=replace(rack.piece, bands=(band("4 cm"),)))).zones[0].area
    assert area is not None
    assert area.value == pytest.approx(0.56 - 2 * 0.5 * 0.04)
    assert "glue face" in area.steps[0].how
    too_much = planned(replace(rack, piece=replace(rack.piece, bands=(band("60 cm"),))))
    assert too_much.problems[0].at == "/piece/bands/0/length"


def test_a_rough_piece_follows_the_usual_proportions_and_carries_a_range(rack: Job) -> None:
    kind = KINDS["board"]
    piece = Piece("board", sized(length=2000), rough="medium")
    assert sizes_of(piece, kind) == ({"length": 2000, "width": 1000, "thickness": 40}, 0.25)
    assert sizes_of(replace(piece, sizes={}, rough="large"), kind)[0]["length"] == 1300
    made = planned(replace(rack, piece=piece))
    assert made.problems == ()
    assert made.rough == 0.25
    assert planned(rack).rough == 0
    assert planned(replace(rack, piece=replace(piece, sizes={}))).rough == 0.4


@pytest.mark.parametrize(
    ("answer", "told"),
    [("not tested", 1), ("test planned", 1), ("none found", 0), ("found", 1), ("never coated", 0)],
)
def test_an_old_finish_asks_the_lead_question_and_defers_to_local_rules(rack: Job, answer: str, told: int) -> None:
    zones = tuple(replace(z, ground="old-matt") for z in rack.zones)
    lead = Answered(answer)  # type: ignore[arg-type]
    made = planned(replace(rack, zones=zones, use=replace(rack.use, lead=lead)))
    assert len(made.cautions) == told
    assert all("lead" in c.says.lower() and "local rules" in c.reason.lower() for c in made.cautions)


FREE = [
    ("rectangle", {"length": 500, "width": 200}, 0.1),
    ("round", {"diameter": 200}, pi * 0.01),
    ("oval", {"length": 1200, "width": 800}, 0.7540),
    ("round wall", {"diameter": 100, "height": 1000}, pi * 0.1),
    ("tapering wall", {"top": 50, "bottom": 30, "height": 420}, 0.05279),
    ("ball", {"diameter": 100}, pi * 0.01),
]


@pytest.mark.parametrize(("shape", "mm", "m2"), FREE)
def test_a_part_of_its_own_is_measured_drawn_and_zoned(
    rack: Job, shape: Shape, mm: dict[str, float], m2: float
) -> None:
    part = FreePart("p1", "rail", shape, sized(**mm), 3)
    zone = replace(rack.zones[0], surfaces=("part-p1",))
    made = planned(replace(rack, piece=Piece("parts", {}, parts=(part,)), zones=(zone,)))
    assert made.problems == ()
    area = made.zones[0].area
    assert area is not None
    assert area.value == pytest.approx(3 * m2, rel=1e-3)
    assert made.drawing is not None
    assert [f.zone for f in made.drawing.faces] == [zone.id]


def test_parts_join_a_known_kind(rack: Job) -> None:
    assert rack.piece
    part = FreePart("p1", "cleat", "rectangle", sized(length=500, width=40), 2)
    zone = replace(rack.zones[0], surfaces=(*rack.zones[0].surfaces, "part-p1"))
    made = planned(replace(rack, piece=replace(rack.piece, parts=(part,)), zones=(zone,)))
    area = made.zones[0].area
    assert area is not None
    assert area.value == pytest.approx(0.56 + 2 * 0.5 * 0.04)


@pytest.mark.parametrize("sizes", [{}, {"length": 500.0}, {"length": 500.0, "width": 400_000.0}])
def test_a_part_without_its_sizes_is_a_problem_at_the_size(rack: Job, sizes: dict[str, float]) -> None:
    piece = Piece("parts", {}, parts=(FreePart("p1", "rail", "rectangle", sized(**sizes)),))
    problems = planned(replace(rack, piece=piece)).problems
    assert "/piece/parts/0/sizes/width" in [p.at for p in problems]


def test_a_piece_of_no_parts_says_what_it_needs(rack: Job) -> None:
    made = planned(replace(rack, piece=Piece("parts", {})))
    assert (made.problems[0].at, made.zones[0].layers[0].pots) == ("/piece/parts", ())
