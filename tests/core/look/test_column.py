"""The strip from bare ground to sealed: what it must say, and how sure it may be."""

import numpy as np
import pytest

from lumso.core.colour.difference import delta_e, lab_of
from lumso.core.colour.spectra import reflectance
from lumso.core.look.column import Shade
from lumso.core.look.words import colour_in_words, steps_apart
from tests.core.look.making import C, laid, look
from tests.counts import count

GREEN, CREAM, DARK = "#4d6b57", "#ece3cc", "#2f2e2d"


def apart(one: str, other: str) -> float:
    return float(delta_e(lab_of(reflectance(one)), lab_of(reflectance(other))))


def test_two_coats_of_paint_come_to_the_colour_of_the_paint() -> None:
    made = look(laid("paint-plain", GREEN, coats=2)).column
    assert apart(made.top.hex, GREEN) < 0.3
    assert made.films[0].own == GREEN


@pytest.mark.parametrize("hex_", [CREAM, GREEN, "#8f3a33"])
def test_mineral_paint_dries_lighter_and_sealing_deepens_it_again(hex_: str) -> None:
    film, seal = look(laid("paint-plain", hex_, coats=2), laid("clear-coat-plain", coats=2)).column.films
    assert film.wet.lightness < film.dry.lightness
    assert seal.dry.lightness < film.dry.lightness


def test_a_clear_coat_is_milky_while_it_is_wet() -> None:
    dark, seal = look(laid("paint-plain", DARK, coats=2), laid("clear-coat-plain")).column.films
    assert seal.wet.lightness > seal.dry.lightness
    assert seal.own == ""
    assert seal.clear
    assert not dark.clear


def test_a_matt_seal_deepens_less_than_a_satin_one() -> None:
    satin, matt = (
        look(laid("paint-plain", GREEN, coats=2), laid(r)).column.top.lightness
        for r in ("clear-coat-plain", "matt-clear-coat-plain")
    )
    assert satin < matt


def test_more_water_leaves_more_of_what_is_beneath() -> None:
    base = laid("paint-plain", "#3f7a78", coats=2)
    light = [
        look(base, laid("colour-wash", CREAM, amounts={"water": w})).column.top.lightness for w in _water(0.3, 0.5, 0.6)
    ]
    assert light == sorted(light, reverse=True)
    assert light[0] > light[-1] + 1


def _water(*shares: float) -> list[object]:
    from lumso.core.book.recipes import VolumeShare

    return [VolumeShare("volume-share", s) for s in shares]


def test_wiping_away_more_leaves_more_of_what_is_beneath() -> None:
    base = laid("paint-plain", CREAM, coats=2)
    light = [look(base, laid("colour-wash", DARK, kept=k)).column.top.lightness for k in (0.9, 0.5, 0.2, 0.05)]
    assert light == sorted(light)


def test_a_glaze_that_hides_all_comes_to_its_paint_sealed() -> None:
    glaze = laid("glaze-brushed-out", GREEN, coats=12, technique="brushed-paint")
    over = look(laid("paint-plain", CREAM, coats=2), glaze).column.top
    sealed = reflectance(GREEN) - (1 - C.optics.surface_of("eggshell")) * min(0.04, 0.8 * reflectance(GREEN).min())
    assert float(delta_e(lab_of(reflectance(over.hex)), lab_of(sealed))) < 1.5


def test_a_mix_of_paints_is_the_same_in_any_order_and_no_mean() -> None:
    from lumso.core.book.colours import Tint

    blue, yellow = Tint("blue", "#28508c", 1), Tint("yellow", "#d8b23c", 1)
    one, other = (
        look(laid("paint-plain", coats=3, tints={"paint": t})).column.top.hex for t in ((blue, yellow), (yellow, blue))
    )
    assert one == other
    green = lab_of(reflectance(one))
    assert green[1] < -8, "blue and yellow paint make green"


def test_pots_side_by_side_are_seen_as_light_not_stirred_together() -> None:
    from lumso.core.book.colours import Colour, Pot

    pots = tuple(Pot(f"p{i}", h, 0.5, {"paint": Colour(h, h)}) for i, h in enumerate(("#28508c", "#d8b23c")))
    made = look(laid("paint-plain", coats=3, pots=pots)).column.top
    mean = (reflectance("#28508c") + reflectance("#d8b23c")) / 2
    assert float(delta_e(lab_of(reflectance(made.hex)), lab_of(mean))) < 0.5


def test_what_is_not_known_widens_the_range() -> None:
    sure = look(laid("paint-plain", CREAM, coats=3)).column.top
    wiped = look(laid("paint-plain", CREAM, coats=3), laid("colour-wash", DARK)).column.top
    assert sure.within < 2.5
    assert wiped.within > 1.5 * sure.within
    assert lab_of(reflectance(wiped.darkest))[0] < wiped.lightness < lab_of(reflectance(wiped.palest))[0]


def test_the_stated_range_holds_the_true_colour_about_nine_times_in_ten() -> None:
    """Washes over bases whose paints scatter and absorb 20 % otherwise than their records say."""
    from dataclasses import replace

    from lumso.core.look.column import column

    draw = np.random.default_rng(3)

    def off() -> float:
        return float(np.exp(0.2 * draw.standard_normal()))

    held = tried = 0
    optics = replace(C.optics, spread=replace(C.optics.spread, by_class=0.2, absorbing=0.2, rate=1e-6, kept=1e-6))
    for _ in range(count("columns within their range")):
        base, wash = ("#" + "".join(f"{c:02x}" for c in draw.integers(60, 240, 3)) for _ in range(2))
        mine = look(laid("paint-plain", base), laid("colour-wash", wash))
        mine.optics = optics
        said, films = mine.column.top, mine.films
        for _ in range(5):
            true = tuple(
                replace(f, pots=tuple(replace(p, dyes=tuple(
                    replace(d, k=d.k * off(), s=d.s * off())
                    for d in p.dyes)) for p in f.pots))
                for f in films
            )  # fmt: skip
            was = column(reflectance(mine.stack.ground.hex), mine.ground_surface, "", true, optics).top.hex
            held += apart(said.hex, was) <= said.within + 0.05
            tried += 1
    assert 0.85 <= held / tried <= 0.95


def test_estimates_are_the_same_every_time() -> None:
    layers = (laid("paint-plain", GREEN), laid("colour-wash", CREAM))
    assert look(*layers).column == look(*layers).column


@pytest.mark.parametrize(
    ("hex_", "words"),
    [("#101010", "black"), ("#ffffff", "white"), ("#8d9290", "middle grey"), ("#8f3a33", "dark red"),
     ("#4f6f86", "middle blue"), ("#4d6b57", "dark green"), ("#ece3cc", "very pale yellow")],
)  # fmt: skip
def test_colours_in_words(hex_: str, words: str) -> None:
    said = colour_in_words(lab_of(reflectance(hex_)))
    assert words in said


def test_steps_in_words() -> None:
    assert steps_apart(60, 60.4) == "as light"
    assert steps_apart(60, 58) == "a touch darker"
    assert steps_apart(60, 71) == "two steps lighter"
    assert steps_apart(90, 40) == "10 steps darker"


def test_a_shade_is_drawn_from_dark_to_pale() -> None:
    made: Shade = look(laid("colour-wash", CREAM)).column.top
    dark, own, pale = (lab_of(reflectance(h))[0] for h in (made.darkest, made.hex, made.palest))
    assert dark <= own <= pale
    for end, between in ((dark, made.darker), (pale, made.paler)):
        halfway = lab_of(reflectance(between))[0]
        assert halfway == pytest.approx((own + end) / 2, abs=0.2 * abs(own - end) + 0.3)


@pytest.mark.parametrize("hex_", [CREAM, GREEN, "#b98a3e"])
def test_a_colour_entered_sealed_or_wet_comes_back_in_that_state(hex_: str) -> None:
    from lumso.core.book.colours import Colour

    def of(entered: str) -> dict[str, Colour]:
        return {"paint": Colour("a colour", hex_, entered)}  # type: ignore[arg-type]

    dry, sealed, wet = (laid("paint-plain", coats=3, colours=of(e)) for e in ("dry", "sealed", "wet"))
    assert apart(look(dry).column.top.hex, hex_) < 0.5
    under = look(sealed, laid("clear-coat-plain")).column  # satin, as colours entered sealed were seen
    assert apart(under.top.hex, hex_) < 0.8
    assert apart(look(wet).column.films[0].wet.hex, hex_) < 1.0
    assert look(sealed).column.top.lightness > look(dry).column.top.lightness
    assert look(wet).column.top.lightness > look(dry).column.top.lightness
