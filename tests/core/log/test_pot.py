"""Pots and jars follow from acts: nothing is lost, nothing is made, whatever is poured, carried, rinsed, corrected."""

import random
from fractions import Fraction

import pytest

from lumso.core.log.acts import (
    Begun,
    Discarded,
    FromJar,
    Left,
    LostWater,
    Noted,
    PotAct,
    Poured,
    Stirred,
    Stuff,
    TakenOut,
)  # fmt: skip
from lumso.core.log.event import Event, notes_of, standing
from lumso.core.log.pot import PotState, replay

PAINT = Stuff("paint", "matt-paint", "matt paint", "paint", False, 1.35, 1.35, "chalk green", "#8fc0b0")
OTHER = Stuff("paint", "matt-paint", "matt paint", "paint", False, 1.35, 1.35, "bone", "#efe8d8")
WATER = Stuff("water", "water", "water", "water", False, 1.0, 1.0)
POWDER = Stuff("powder", "texture-powder", "texture powder", "powder", True, 0.6, 2.3)


def noted(*acts: PotAct) -> list[Noted]:
    return [Noted(f"e{i}", act, float(i)) for i, act in enumerate(acts)]


def begun(pot: str) -> Begun:
    return Begun("begun", pot, f"batch of {pot}", "mofa-27", "a wash")


def poured(pot: str, stuff: Stuff, g: float) -> Poured:
    return Poured("poured", pot, stuff, g, "scale")


def only(*acts: PotAct) -> PotState:
    pots, faults = replay(noted(*acts))
    assert faults == ()
    return pots["a"]


def grams(pot: PotState) -> dict[str, object]:
    return {h.stuff.key: pytest.approx(h.g) for h in pot.held}


def test_what_is_poured_adds_up_and_measures_by_its_densities() -> None:
    pot = only(begun("a"), poured("a", PAINT, 135), poured("a", POWDER, 45))
    assert pot.g == 180
    assert pot.ml == pytest.approx(100 + 45 / 2.3)  # not 175 ml: powder is mostly air
    assert pot.density == pytest.approx(180 / (100 + 45 / 2.3))
    assert (pot.batch, pot.state) == ("batch of a", "pouring")


def test_paints_of_two_colours_are_two_things_and_one_colour_is_one() -> None:
    pot = only(begun("a"), poured("a", PAINT, 10), poured("a", OTHER, 20), poured("a", PAINT, 5))
    assert grams(pot) == {"matt-paint|chalk green|#8fc0b0": 15, "matt-paint|bone|#efe8d8": 20}


def test_begun_on_two_devices_it_is_one_pot() -> None:
    pot = only(begun("a"), poured("a", PAINT, 10), begun("a"))
    assert pot.g == 10


def test_only_the_last_pour_is_taken_out_and_only_before_stirring() -> None:
    first: list[PotAct] = [begun("a"), poured("a", PAINT, 10), poured("a", WATER, 30)]
    out = only(*first, TakenOut("taken out", "a", "e2", 5))
    assert grams(out)["water"] == 25
    assert out.pours[-1].out_g == 5
    for pour, before in (("e1", first), ("e2", [*first, Stirred("stirred", "a")])):
        pots, faults = replay(noted(*before, TakenOut("taken out", "a", pour, 5)))
        assert [f.field for f in faults] == ["/act/pour"]
        assert pots["a"].g == 40
    _, faults = replay(noted(*first, TakenOut("taken out", "a", "e2", 31)))
    assert [(f.field, f.allowed) for f in faults] == [("/act/g", "at most 30.0 g")]


def test_a_jar_gives_its_own_mix_and_no_more_than_it_holds() -> None:
    acts: list[PotAct] = [begun("j"), poured("j", PAINT, 40), poured("j", WATER, 60), Left("left", "j", 50, "scale")]
    pots, faults = replay(noted(*acts, begun("a"), FromJar("from jar", "a", "j", 20), poured("a", WATER, 10)))
    assert faults == ()
    assert grams(pots["a"]) == {PAINT.key: 8, "water": 22}
    assert [pots["j"].g, pots["j"].given_g, pots["j"].used_g] == pytest.approx([30, 20, 50])
    pots, faults = replay(noted(*acts, begun("a"), FromJar("from jar", "a", "j", 50.5)))
    assert [(f.field, f.allowed) for f in faults] == [("/act/g", "at most 50.0 g")]
    assert pots["j"].g == 50
    pots, _ = replay(noted(*acts, begun("a"), FromJar("from jar", "a", "j", 50)))
    assert pots["j"].state == "empty"


def test_water_leaves_a_jar_and_takes_no_paint_along() -> None:
    acts: list[PotAct] = [begun("a"), poured("a", PAINT, 40), poured("a", WATER, 60)]
    dry = only(*acts, LostWater("lost water", "a", 25, "weighed"))
    assert grams(dry) == {PAINT.key: 40, "water": 35}
    assert dry.lost_water_g == 25
    _, faults = replay(noted(*acts, LostWater("lost water", "a", 61, "weighed")))
    assert [f.field for f in faults] == ["/act/g"]


def test_what_is_left_is_what_was_used_the_other_way_round() -> None:
    acts: list[PotAct] = [begun("a"), poured("a", PAINT, 40), poured("a", WATER, 60), Stirred("stirred", "a")]
    kept = only(*acts, Left("left", "a", 30, "weighed", "wrapped", "the shelf"))
    assert grams(kept) == {PAINT.key: 12, "water": 18}
    assert (kept.used_g, kept.state, kept.closed, kept.place) == (70, "kept", "wrapped", "the shelf")
    assert only(*acts, Left("left", "a", 0, "feel")).state == "empty"
    _, faults = replay(noted(*acts, Left("left", "a", 140, "weighed")))
    assert [f.field for f in faults] == ["/act/g"]
    thrown = only(*acts, Discarded("discarded", "a", "it gelled"))
    assert (thrown.g, thrown.state) == (0, "discarded")


def test_a_correction_is_replayed_in_its_place_and_reaches_every_jar_below() -> None:
    acts: list[PotAct] = [
        begun("j"), poured("j", PAINT, 40), poured("j", WATER, 60), begun("a"), FromJar("from jar", "a", "j", 50),
    ]  # fmt: skip
    events = [Event(f"e{i}", "job", "op", "noted", i, act=a) for i, a in enumerate(acts)]
    fixed = Event("c", "job", "op", "corrected", 9, retracts="e2", act=poured("j", WATER, 160))
    pots, _ = replay(notes_of([*events, fixed]))
    assert grams(pots["a"]) == {PAINT.key: 10, "water": 40}
    again = Event("d", "job", "op", "corrected", 10, retracts="c", act=poured("j", WATER, 120))
    pots, _ = replay(notes_of([*events, fixed, again]))
    assert grams(pots["a"]) == {PAINT.key: 12.5, "water": 37.5}
    gone = Event("r", "job", "op", "retracted", 11, retracts="e1")
    assert [e.id for e in standing([*events, gone])] == ["e0", "e2", "e3", "e4"]
    assert [e.id for e in standing([*events, fixed, Event("r", "job", "op", "retracted", 11, retracts="c")])] == [
        "e0", "e1", "e3", "e4"
    ]  # fmt: skip


def test_composition_is_exact_through_chains_of_a_hundred_acts() -> None:
    """Against the same sums in whole fractions, done by hand here."""
    for seed in range(25):
        rng = random.Random(seed)
        acts: list[PotAct] = []
        true: dict[str, dict[str, Fraction]] = {}
        for n in range(100):
            pots = sorted(p for p, held in true.items() if sum(held.values()) > 1)
            way = rng.choice(("new", "pour", "pour", "carry", "rinse", "dry", "left")) if pots else "new"
            at = rng.choice(pots) if pots else ""
            whole = sum(true[at].values()) if at else Fraction(0)
            if way == "new":
                true[f"p{n}"] = {}
                acts += [begun(f"p{n}"), poured(f"p{n}", PAINT, 64)]
                true[f"p{n}"][PAINT.key] = Fraction(64)
            elif way in {"pour", "rinse"}:
                stuff = WATER if way == "rinse" else rng.choice((PAINT, OTHER, WATER, POWDER))
                g = rng.randrange(1, 400) / 8
                acts.append(poured(at, stuff, g))
                true[at][stuff.key] = true[at].get(stuff.key, Fraction(0)) + Fraction(g)
            elif way == "carry":
                to, share = f"c{n}", Fraction(rng.randrange(1, 9), 10)
                acts += [begun(to), FromJar("from jar", to, at, float(whole * share))]
                true[to] = {k: v * share for k, v in true[at].items()}
                true[at] = {k: v * (1 - share) for k, v in true[at].items()}
            elif way == "dry" and true[at].get("water", 0) > 2:
                acts.append(LostWater("lost water", at, 1.5, "weighed"))
                true[at]["water"] -= Fraction(3, 2)
            elif way == "left":
                acts.append(Left("left", at, float(whole * Fraction(3, 4)), "scale"))
                true[at] = {k: v * Fraction(3, 4) for k, v in true[at].items()}
        pots_now, faults = replay(noted(*acts))
        assert faults == ()
        for name, held in true.items():
            got = {h.stuff.key: h.g for h in pots_now[name].held}
            assert got.keys() == {k for k, v in held.items() if v > Fraction(1, 10**6)}
            for key, g in got.items():
                assert g == pytest.approx(float(held[key]), rel=1e-9, abs=1e-6)
        put_in = sum(a.g for a in acts if isinstance(a, Poured))
        accounted = sum(p.g + p.used_g + p.lost_water_g for p in pots_now.values())
        assert accounted == pytest.approx(put_in, rel=1e-9)


def test_what_sets_goes_on_setting_in_another_pot() -> None:
    acts = (begun("a"), poured("a", WATER, 50), poured("a", POWDER, 50), Stirred("stirred", "a"))
    notes = noted(*acts, Left("left", "a", 80, "scale"), begun("b"), FromJar("from jar", "b", "a", 40))
    pots, faults = replay(notes)
    assert faults == ()
    assert pots["b"].wetted_min == pots["b"].sets_from_min == pots["a"].wetted_min == 2.0
    fresh, _ = replay([*notes, Noted("more", poured("b", POWDER, 5), 90.0)])
    assert (fresh["b"].wetted_min, fresh["b"].sets_from_min) == (90.0, 2.0)
