"""Pictures, by what they measure: shares, means, spacings in mm, and the same at every size."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from lumso.core.book.marks import Mark
from lumso.core.book.preparation import Sanding
from lumso.core.colour.difference import delta_e, lab
from lumso.core.colour.spectra import reflectance, screen
from lumso.core.layers.abrasion import takes_um
from lumso.core.look.ground import JOINT_MM, PORE_SHARE, bare, side_mm
from lumso.core.look.noise import Sheet, pattern
from lumso.core.look.picture import light_of, shading
from lumso.core.look.surface import LookSurface, depth_mm, lay, sand_down
from tests.core.look.making import C, finished, laid, look, sanded

CREAM, GREEN, DARK = "#ece3cc", "#4d6b57", "#3a2f28"
SANDED_THROUGH = {"chippy-milk-paint", "two-colour-milk-paint", "salt-wash-undercolours", "palette-knife-layers"}


def linear(picture: np.ndarray) -> np.ndarray:
    c = picture / 255
    return np.asarray(np.where(c <= 0.04045, c / 12.92, ((c + 0.055) / 1.055) ** 2.4))


def blocks(grid: np.ndarray, px: int) -> np.ndarray:
    n = len(grid) // px
    return np.asarray(grid.reshape(px, n, px, n, *grid.shape[2:]).mean((1, 3)))


def seen(made: LookSurface, index: int) -> float:
    return float(np.mean(made.seen(index)))


# The same at every size -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "slug",
    ["limed-wax", "palette-knife-layers", "salt-wash-undercolours", "whitewash-over-colour", "sponged-brick",
     "dry-brushed-texture", "brushed-glaze-doors", "waxed-carving", "chippy-milk-paint"],
)  # fmt: skip
def test_a_coarse_picture_is_what_a_fine_one_is_from_far_away(slug: str) -> None:
    coarse, fine = (linear(finished(slug).picture(px)) for px in (160, 640))
    off = delta_e(lab(coarse), lab(blocks(fine, 160)))
    assert np.quantile(off, 0.95) < (3 if slug == "limed-wax" else 2)  # its pores are finer than a px, and bright
    assert float(delta_e(lab(coarse.mean((0, 1))), lab(fine.mean((0, 1))))) < 0.6


def test_a_pattern_is_the_mean_of_a_finer_one_and_says_what_it_leaves_out() -> None:
    coarse, fine = (pattern(Sheet(px, 120, 4), 3, 2.0, 60.0, True, 35.0) for px in (160, 640))
    assert np.abs(blocks(fine.at, 160) - coarse.at).max() < 0.12
    within = np.sqrt((fine.at**2).mean() - (blocks(fine.at, 160) ** 2).mean() + fine.left**2)
    assert coarse.left == pytest.approx(float(within), abs=0.05)


def test_pictures_repeat_and_layers_do_not_lie_alike() -> None:
    base, wash = laid("paint-plain", GREEN, coats=2), laid("colour-wash", CREAM)
    assert (look(base, wash).picture(160) == look(base, wash).picture(160)).all()
    glaze = laid("glaze-dragged", CREAM)
    first, second = look(base, glaze, glaze).surface(320).coats[1:]
    assert abs(np.corrcoef(np.ravel(first.cover), np.ravel(second.cover))[0, 1]) < 0.2


# What it measures -----------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "slug",
    sorted(set(C.finishes) - SANDED_THROUGH),
)
def test_a_picture_is_as_light_and_as_coloured_as_the_strip_says(slug: str) -> None:
    """But for finishes that are sanded through or flake: the strip stops before that."""
    made = finished(slug)
    mean = np.clip(made.light(160).mean((0, 1)), 0, 1)
    assert float(delta_e(lab(mean), lab(screen(reflectance(made.column.top.hex))))) < 2.2


def test_peaks_stand_as_far_apart_and_as_high_as_they_are_laid() -> None:
    height = look(laid("salt-wash", DARK, thickness_mm=1.0)).surface(320).height
    inner = height[20:, 20:] - height[20:, 20:].mean()
    power = np.abs(np.fft.rfft2(inner)) ** 2
    f = np.hypot(np.fft.fftfreq(300, 0.375)[:, None], np.fft.rfftfreq(300, 0.375)[None, :])
    assert 1 / (power * f).sum() * power.sum() == pytest.approx(5.0, abs=1.0)  # mm from peak to peak
    above = height - np.quantile(height, 0.0)
    assert np.quantile(above, 0.98) - np.quantile(above, 0.02) == pytest.approx(1.3, abs=0.6)
    thicker = look(laid("salt-wash", DARK, thickness_mm=2.0)).surface(320).height
    assert np.ptp(thicker[40:, 40:]) > 1.8 * np.ptp(height[40:, 40:])


@pytest.mark.parametrize(
    ("technique", "share"), [("dry-brushed", 0.1), ("patchy", 0.4), ("striped", 0.2), ("stencilled", 0.15)]
)
def test_what_touches_a_part_covers_that_part(technique: str, share: float) -> None:
    made = look(laid("paint-plain", CREAM, coats=2), laid("paint-plain", DARK, technique, touched=share)).surface(320)
    assert seen(made, 1) == pytest.approx(share, abs=0.015)
    assert seen(made, 0) == pytest.approx(1 - share, abs=0.015)
    assert sum(seen(made, i) for i in (-1, 0, 1)) == pytest.approx(1, abs=1e-5)


@pytest.mark.parametrize("technique", ["glaze-dragged", "wash-wiped", "brushed-paint", "glaze-cross-hatched"])
def test_what_is_laid_on_half_lies_on_half(technique: str) -> None:
    glaze = laid("glaze-dragged", DARK, technique, touched=0.5)
    made = look(laid("paint-plain", CREAM, coats=2), glaze)
    coat = made.surface(320).coats[1]
    assert float(np.mean(coat.where)) == pytest.approx(0.5, abs=0.015)
    mean = np.clip(made.light(160).mean((0, 1)), 0, 1)
    assert float(delta_e(lab(mean), lab(screen(reflectance(made.column.top.hex))))) < 2


def test_pots_share_a_surface_as_they_were_told() -> None:
    made = finished("salt-wash-undercolours").surface(320)
    assert [float(np.mean(p)) for p in made.coats[0].pots] == pytest.approx([0.25] * 4, abs=0.02)


def _with_lows(technique: str, recipe: str, **more: Any) -> float:
    """How a film's thickness goes with the height of a carved surface."""
    made = look(laid("paint-plain", CREAM, coats=2), laid(recipe, DARK, technique, **more), relief="carved").surface(
        320
    )
    coat = made.coats[1]
    lies = coat.cover if isinstance(coat.thick, float) else coat.cover * coat.thick
    return float(np.corrcoef(np.ravel(lies)[:], np.ravel(made.height))[0, 1])


def test_washes_and_dark_wax_gather_in_hollows_and_a_dry_brush_touches_crests() -> None:
    assert _with_lows("wash-wiped", "colour-wash") < -0.4
    assert _with_lows("wax-recesses", "dark-wax") < -0.4
    assert _with_lows("dry-brushed", "paint-plain", touched=0.1) > 0.3


def test_liming_stays_in_open_pores() -> None:
    limed = look(laid("liming-wax"), ground="raw-oak").surface(320)
    assert limed.ground.pores is not None
    assert float(limed.ground.pores.mean()) == pytest.approx(PORE_SHARE, abs=0.02)
    assert np.corrcoef(np.ravel(limed.coats[0].cover), np.ravel(limed.ground.pores))[0, 1] > 0.99
    closed = look(laid("liming-wax"), ground="raw-beech").surface(160)
    assert closed.ground.pores is None


def test_brick_has_its_courses_in_mm() -> None:
    ground, relief = C.grounds["bare-brick"], C.reliefs["brick-joints"]
    mm = side_mm(ground, relief, C.optics.kinds)
    made = bare(ground, relief, Sheet(640, mm, 1), C.optics.kinds)
    assert made.mixed is not None
    assert float(made.mixed.mean()) == pytest.approx(JOINT_MM / 75 + JOINT_MM / 225 * 65 / 75, abs=0.03)
    assert made.height[made.mixed > 0.9].mean() < made.height[made.mixed < 0.1].mean() - 3


def test_flakes_come_off_what_does_not_hold_and_not_off_what_does() -> None:
    milk = laid("milk-paint", GREEN, coats=2)
    assert seen(look(milk, ground="old-gloss").surface(320), -1) == pytest.approx(0.22, abs=0.05)
    assert seen(look(milk, ground="raw-beech").surface(160), -1) < 0.001
    held = look(laid("bonding-primer-plain"), milk, ground="old-gloss").surface(160)
    assert seen(held, -1) + seen(held, 0) < 0.001


def test_where_a_flake_came_off_nothing_is_left_between_the_marks_either() -> None:
    made = look(laid("milk-paint", GREEN, coats=2), ground="old-gloss")
    combed = replace(made.films[0], mark=Mark("", "combed", 1.4, 200, 0.6, 0.35))
    sheet = Sheet(320, 120, 20)
    ground = bare(made.stack.ground, C.reliefs["flat"], sheet, C.optics.kinds)
    surface = LookSurface(sheet, ground, ground.height)
    lay(surface, combed, 1)
    gone = np.asarray(surface.coats[0].where) < 0.01
    assert 0.1 < gone.mean() < 0.3
    shown = light_of(surface, made.ground_surface, C.optics)
    bare_light = light_of(LookSurface(sheet, ground, ground.height), made.ground_surface, C.optics)
    assert np.abs(shown - bare_light)[gone].max() < 0.02


# Sanding --------------------------------------------------------------------------------------------------------------


def _two_colours(takes_mm: float, sand: tuple[Sanding, ...]) -> LookSurface:
    made = look(laid("milk-paint", "#b98a3e"), laid("milk-paint", "#4f6f86", coats=2), ground="raw-beech")
    sheet = Sheet(320, 120, 20)
    ground = bare(made.stack.ground, C.reliefs["flat"], sheet, C.optics.kinds)
    surface = LookSurface(sheet, ground, ground.height)
    for i, film in enumerate(made.films):
        lay(surface, film, i + 1)
    sand_down(surface, depth_mm(surface, sand[0], takes_mm, 50))
    return surface


def test_sanding_deeper_never_leaves_more_of_the_uppermost_film() -> None:
    last = None
    for takes in (0.0, 0.01, 0.03, 0.06, 0.12, 0.4):
        made = _two_colours(takes, sanded(120))
        top = np.asarray(made.seen(1) * np.ones((320, 320)))
        if last is not None:
            assert (top <= last + 1e-6).all()
        last = top
    assert last is not None
    assert float(last.mean()) < 0.5
    assert seen(_two_colours(0.0, sanded(120)), 1) > 0.999


def test_edges_are_worn_first() -> None:
    made = _two_colours(0.05, sanded(120))
    bared = np.asarray(made.coats[1].bared)
    near, far = bared[made.ground.edge < 3].mean(), bared[made.ground.edge > 20].mean()
    assert near > 2 * far
    only = np.asarray(_two_colours(0.05, sanded(120, where="edges")).coats[1].bared)
    assert only[made.ground.edge > 40].max() < 0.02


def test_a_block_bares_what_stands_above_its_plane() -> None:
    """The share bared is that of the heights above the plane, by the surface's own distribution."""
    made = look(laid("salt-wash", "#3f7a78", thickness_mm=1.0), laid("thinned-paint", "#8d9290"))
    sheet = Sheet(320, 120, 20)
    ground = bare(made.stack.ground, C.reliefs["flat"], sheet, C.optics.kinds)
    surface = LookSurface(sheet, ground, ground.height)
    for i, film in enumerate(made.films):
        lay(surface, film, i + 1)
    thin = float(np.mean(surface.coats[1].left_mm))
    depth = depth_mm(surface, sanded(100, "bite", by="machine")[0], 0.6, 50)
    above = float((depth > thin).mean())
    sand_down(surface, depth)
    assert 0.05 < above < 0.9
    assert float(np.mean(surface.coats[1].bared)) == pytest.approx(above, abs=0.02)
    assert float(np.ptp(surface.height[40:, 40:])) < float(np.ptp((surface.height + depth)[40:, 40:]))


def test_coarser_paper_bares_more_of_what_is_beneath() -> None:
    def bared(grit: int, purpose: str) -> float:
        top = laid("milk-paint", "#4f6f86", coats=2, sandings=sanded(grit, purpose))
        made = look(laid("milk-paint", "#b98a3e"), top, ground="raw-beech")
        assert takes_um(made.stack, top.sandings[0]) > 0
        return 1 - seen(made.surface(320), 1)

    soft, bite, reveal = bared(220, "soften"), bared(120, "bite"), bared(80, "reveal")
    assert soft < 0.02 < bite < reveal


# Light ----------------------------------------------------------------------------------------------------------------


def test_light_comes_from_the_upper_left_and_level_is_level() -> None:
    flat = np.zeros((64, 64), np.float32)
    assert (shading(flat) == 1).all()
    x = np.arange(64, dtype=np.float32)
    rising = np.broadcast_to(x * 0.5, (64, 64))  # higher to the right: turned to the left, to the lamp
    assert shading(rising)[32, 32] > 1.1
    assert shading(-rising)[32, 32] < 0.9
    assert shading(rising.T.copy())[32, 32] > 1.1


def test_a_picture_is_no_lighter_for_its_lamp() -> None:
    for slug in ("dry-brushed-texture", "waxed-carving"):
        made = finished(slug)
        even = made.light(320).mean()
        assert linear(made.picture(320)).mean() == pytest.approx(float(even), rel=0.05)


@pytest.mark.parametrize("slug", sorted(C.techniques))
def test_every_technique_leaves_its_own_mark(slug: str) -> None:
    assert slug in C.marks
    made = look(laid("paint-plain", CREAM, coats=2), laid("paint-plain", DARK, slug))
    assert np.isfinite(made.light(64)).all()
