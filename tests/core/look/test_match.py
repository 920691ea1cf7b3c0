"""Matching a colour: found again, with what it is good for, and measured so that it stays."""

import numpy as np
import pytest

from lumso.core.colour.difference import delta_e, lab_of
from lumso.core.colour.spectra import hex_of, reflectance
from lumso.core.errors import InvalidValue
from lumso.core.look.match import FAR, NEAR, Onto, Palette, ShelfPaint, closer, matches
from lumso.core.look.spoons import _diluted, in_spoons
from tests.core.look.making import C
from tests.counts import count

SHELF = [
    ShelfPaint(name.replace(" ", "-"), name, hex_)
    for name, hex_ in {
        "limewhite": "#f1efe8", "soot": "#2f2e2d", "curtain red": "#8f3a33", "loft ochre": "#b98a3e",
        "trapdoor teal": "#3f7a78", "rain-barrel blue": "#4f6f86", "stage-door green": "#4d6b57",
        "footlight cream": "#ece3cc", "plum velvet": "#5b3a4a", "flowerpot": "#b5694a", "moss": "#7f8a5a",
        "sand": "#d2bd92", "gallery blue": "#1f3f6e", "limelight yellow": "#e0b83c", "usher red": "#b3261e",
        "yew": "#2e6b3a", "plaster dust": "#d9d4c8", "stage-hand grey": "#8d9290", "old rope": "#6d563d",
        "backcloth sky": "#a9c3cd",
    }.items()
]  # fmt: skip
KIT = C.kits["metric-spoons"]


def palette(onto: Onto | None = None, n: int = 20) -> Palette:
    return Palette(SHELF[:n], C.optics, onto)


def some(draw: np.random.Generator, of: Palette) -> "np.ndarray[tuple[int], np.dtype[np.float64]]":
    shares = np.zeros(len(of.paints))
    chosen = draw.choice(len(of.paints), draw.integers(1, 4), replace=False)
    shares[chosen] = draw.dirichlet(np.ones(len(chosen)))
    return shares


@pytest.mark.parametrize(
    "onto",
    [None, Onto(reflectance("#d9d6cc"), 2.0, 0.5), Onto(reflectance("#d9d6cc"), 0.4)],
    ids=["thick", "sealed", "a thin wash"],
)
def test_what_was_mixed_from_the_shelf_is_found_again(onto: Onto | None) -> None:
    draw, of = np.random.default_rng(8), palette(onto, 9)
    for _ in range(count("colours found again")):
        wanted = reflectance(hex_of(of.light(some(draw, of))))
        best = matches(wanted, of, 1)[0]
        assert best.off < 1
        assert sum(p.share for p in best.parts) == pytest.approx(1)
        assert len(best.parts) <= 4
        again = delta_e(lab_of(reflectance(best.shade.hex)), lab_of(wanted))
        assert float(again) < 1.5, "as it is drawn, to the nearest of 16 million colours"


def test_a_paint_of_the_shelf_is_matched_by_itself_and_nothing_else() -> None:
    (best, *_) = matches(reflectance("#3f7a78"), palette())
    assert [p.slug for p in best.parts] == ["trapdoor-teal"]
    assert best.off < 0.01


def test_mixes_offered_differ_and_the_first_is_the_nearest() -> None:
    found = matches(reflectance("#8aa09a"), palette())
    assert len(found) == 5
    assert len({frozenset(p.slug for p in m.parts) for m in found}) == 5
    assert found[0].off <= min(m.off for m in found) + 0.6


def test_where_nothing_near_exists_it_is_said_with_what_would_help() -> None:
    wanted = reflectance("#00d060")
    best = matches(wanted, palette())[0]
    assert best.off > FAR
    assert "stronger" in closer(wanted, best)
    assert closer(reflectance("#3f7a78"), matches(reflectance("#3f7a78"), palette())[0]) == ""
    pale = matches(reflectance("#ffffff"), palette())[0]
    assert "lighter" in closer(reflectance("#ffffff"), pale)


def test_the_range_holds_the_true_colour_about_nine_times_in_ten() -> None:
    draw = np.random.default_rng(2)
    of = palette(n=10)
    of.s_spread = np.full(10, 0.2)
    from dataclasses import replace

    of.optics = replace(C.optics, spread=replace(C.optics.spread, absorbing=0.2))
    held = tried = 0
    for _ in range(count("colours within their range")):
        best = matches(of.light(some(draw, of)), of, 1)[0]
        shares = np.array([next((p.share for p in best.parts if p.slug == x.slug), 0.0) for x in of.paints])
        for _ in range(5):
            k, s = (np.exp(0.2 * draw.standard_normal((10, 1))) for _ in range(2))
            true = of.seen(shares @ (of.k * k), shares @ (of.s * s), shares @ (of.lack * s))
            held += float(delta_e(lab_of(true), lab_of(of.light(shares)))) <= best.shade.within
            tried += 1
    assert 0.85 <= held / tried <= 0.95


def test_a_sealed_match_is_deeper_in_the_pot_than_what_is_wanted() -> None:
    wanted = reflectance("#8aa09a")
    sealed = matches(wanted, palette(Onto(reflectance("#d9d6cc"), 3.0, 0.5)))[0]
    bare = Palette(SHELF, C.optics, Onto(reflectance("#d9d6cc"), 3.0))
    shares = np.array([next((p.share for p in sealed.parts if p.slug == x.slug), 0.0) for x in SHELF])
    assert lab_of(bare.light(shares))[0] > lab_of(wanted)[0] + 0.5
    assert sealed.off < 1


def test_too_many_paints_are_refused() -> None:
    with pytest.raises(InvalidValue, match="paints"):
        Palette([], C.optics, None)
    with pytest.raises(InvalidValue, match="paints"):
        Palette(SHELF * 3, C.optics, None)


# In spoons ------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "wanted", ["#c9c6bf", "#d7d2c2", "#8aa09a", "#dcd9d2", "#a4743f", "#70787a", "#e3dccb", "#6f4a45"]
)
def test_spoons_keep_the_colour_or_say_what_would(wanted: str) -> None:
    of = palette()
    best = matches(reflectance(wanted), of, 1)[0]
    made = in_spoons(best, 60, KIT, of)
    good = [m for m in (made.asked, made.larger, made.diluted) if m is not None and m.off <= NEAR]
    assert good
    for one in good:
        got = np.zeros(20)
        jar = {p.name: p.ml / sum(x.ml for x in one.jar) for p in one.jar}
        for part in one.parts:
            assert part.ml == pytest.approx(sum(f.ml * f.count for f in part.fillings))
            for i, paint in enumerate(of.paints):
                inside = jar.get(paint.name, 0.0) if part.name == "jar of tint" else float(paint.name == part.name)
                got[i] += part.ml * inside
        whole = np.array([next((p.share for p in best.parts if p.slug == x.slug), 0.0) for x in of.paints])
        off = delta_e(lab_of(of.light(got / got.sum())), lab_of(of.light(whole)))
        assert float(off) <= NEAR + (0.25 if one.jar else 0.01)


def test_a_pinch_of_black_asks_for_a_larger_batch_or_a_jar_of_tint() -> None:
    of = Palette([SHELF[0], SHELF[1]], C.optics, None)
    grey = matches(reflectance(hex_of(of.light(np.array([0.992, 0.008])))), of, 1)[0]
    made = in_spoons(grey, 60, KIT, of)
    assert made.asked is None or made.asked.off > NEAR
    assert made.larger is not None
    assert made.larger.total_ml > 100
    assert made.diluted is not None
    assert made.diluted.total_ml < 90
    assert {p.name for p in made.diluted.jar} == {"limewhite", "soot"}


def test_what_is_begun_from_for_a_sealed_match_is_paler_than_what_is_wanted() -> None:
    """A sealer deepens: unsealed, the mix that comes to a dark colour under gloss is lighter by what the surface gives
    back."""
    wanted, onto = reflectance("#4d6b57"), Onto(reflectance("#d9d6cc"), 9.0, 0.1)
    of = palette(onto)
    (best, *_) = matches(wanted, of)
    shares = np.array([next((p.share for p in best.parts if p.slug == x.slug), 0.0) for x in SHELF])
    bare = Palette(SHELF, C.optics, Onto(onto.light, onto.thickness))
    assert lab_of(bare.light(shares))[0] > lab_of(wanted)[0] + 3
    assert best.off < 1


def test_a_jar_of_tint_brings_as_much_tint_as_the_mix_has() -> None:
    """Stirred one in ten and poured tenfold: paint by paint, jar and pot together hold the shares that were found."""
    of = palette()
    white, black = "limewhite", "soot"
    wanted = reflectance(hex_of(of.light(np.array([{white: 0.97, black: 0.03}.get(p.slug, 0.0) for p in SHELF]))))
    best = next(m for m in matches(wanted, of, 3) if {p.slug for p in m.parts} == {white, black})
    made = _diluted(best, 100, KIT, of)
    assert made is not None
    jar = {p.name: p.ml for p in made.jar}
    poured = {p.name: p.ml for p in made.parts}
    from_jar = poured["jar of tint"] * jar["soot"] / sum(jar.values())
    asked = next(p.share for p in best.parts if p.slug == black)
    assert from_jar / made.total_ml == pytest.approx(asked, rel=0.2)
    assert jar["soot"] / sum(jar.values()) == pytest.approx(0.1, rel=0.1)
