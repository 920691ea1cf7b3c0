"""Lots and promises: no tin gives more than it holds, at any date; what spoils goes first; colours match."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.buying.jars import BatchWanted, JarLeft, from_jars
from lumso.core.buying.lots import Lot, LotUse, drawn, same_colour
from lumso.core.buying.promises import LotNeed, reserve

DAY = 24 * 60.0


def day_of(minute: float) -> str:
    return f"2026-12-{int(minute // DAY) + 1:02d}"


def tin(slug: str, left: float, **more: object) -> Lot:
    made = Lot(slug, "matt-paint", "matt paint", "ml", 1000, left, 0.0, colour="loft ochre", hex="#b98a3e")
    return replace(made, **more)  # type: ignore[arg-type]


def use(at: float, ml: float, colour: str = "loft ochre", by: str = "rack") -> LotUse:
    return LotUse(at, "matt-paint", colour, "#b98a3e", ml, ml * 1.3, 0.0, by)


def need(slug: str, at: float, ml: float, colour: str = "loft ochre", matches: bool = True) -> LotNeed:
    return LotNeed(slug, use(at, ml, colour), "Rack", "paint", "material", matches)


lots = st.lists(
    st.builds(
        lambda n, left, until, counted, unit: tin(
            f"tin{n}", left, keeps_until=until, counted_min=counted, unit=unit, bought_on=f"2026-11-{n % 28 + 1:02d}"
        ),
        st.integers(0, 99), st.floats(0, 900), st.sampled_from(["", "2026-12-02", "2026-12-05"]),
        st.sampled_from([0.0, 2 * DAY]), st.sampled_from(["ml", "g"]),
    ),
    max_size=5, unique_by=lambda lot: lot.slug,
)  # fmt: skip
needs = st.lists(
    st.builds(
        need, st.uuids().map(str), st.floats(2 * DAY, 8 * DAY), st.floats(1, 700),
        st.sampled_from(["loft ochre", "soot"]), st.booleans(),
    ),
    max_size=6,
)  # fmt: skip
used = st.lists(st.builds(use, st.floats(0, 2 * DAY), st.floats(1, 700)), max_size=4)


@given(lots, needs, used, st.booleans())
def test_promises_and_use_never_exceed_what_a_tin_holds(
    tins: list[Lot], wants: list[LotNeed], poured: list[LotUse], split: bool
) -> None:
    left, taken = drawn(tins, poured)
    made = reserve(wants, tins, left, day_of, ["matt-paint"] if split else ())
    for lot in tins:
        poured_off = sum(t.amount for t in taken if t.lot == lot.slug)
        promised = sum(p.amount for p in made.promises if p.lot == lot.slug)
        assert poured_off + promised <= lot.left + 1e-6
        assert made.free[lot.slug] == pytest.approx(lot.left - poured_off - promised, abs=1e-6)
        assert made.free[lot.slug] >= -1e-9
    by_id = {n.id: n for n in wants}
    tins_by = {lot.slug: lot for lot in tins}
    for promise in made.promises:
        lot, asked = tins_by[promise.lot], by_id[promise.need]
        assert same_colour(lot.colour, lot.hex, asked.use.colour, asked.use.hex)
        assert not lot.keeps_until or lot.keeps_until >= day_of(asked.use.at_min)
    for asked in wants:
        mine = [p for p in made.promises if p.need == asked.id]
        short = sum(n.use.ml for n in made.short if n.id == asked.id)
        assert sum(p.share for p in mine) * asked.use.ml + short == pytest.approx(asked.use.ml, rel=1e-6)
        if asked.matches and not split:
            assert len(mine) <= 1
            assert not mine or mine[0].share == pytest.approx(1)
        assert all(p.several == (len(mine) > 1) for p in mine)


@given(lots, used)
def test_what_was_poured_is_taken_off_tins_counted_before_it_and_off_no_other(
    tins: list[Lot], poured: list[LotUse]
) -> None:
    left, taken = drawn(tins, poured)
    counted = {lot.slug: lot.counted_min for lot in tins}
    assert all(counted[t.lot] <= poured[t.use].at_min for t in taken)
    assert all(value >= -1e-9 for value in left.values())
    for n in range(len(poured)):
        assert sum(t.share for t in taken if t.use == n) <= 1 + 1e-9


def test_the_earliest_coat_comes_first_and_what_spoils_soonest_goes_first() -> None:
    tins = [tin("old", 300, keeps_until="2026-12-20"), tin("soon", 300, keeps_until="2026-12-06"), tin("ever", 300)]
    wants = [need("b", 4 * DAY, 250), need("a", 3 * DAY, 250), need("c", 7 * DAY, 250)]
    made = reserve(wants, tins, {t.slug: t.left for t in tins}, day_of)
    assert [(p.need, p.lot) for p in made.promises] == [("a", "soon"), ("b", "old"), ("c", "ever")]


def test_a_tin_past_its_day_is_not_promised_and_another_colour_never() -> None:
    tins = [tin("gone", 900, keeps_until="2026-12-03"), tin("soot", 900, colour="soot")]
    made = reserve([need("a", 5 * DAY, 100)], tins, {t.slug: t.left for t in tins}, day_of)
    assert made.promises == ()
    assert [n.use.ml for n in made.short] == [100]


def test_a_coat_that_must_match_is_not_split_unless_somebody_says_so_and_then_it_is_said() -> None:
    tins = [tin("one", 300), tin("two", 300)]
    left = {t.slug: t.left for t in tins}
    apart = reserve([need("a", 0, 500)], tins, left, day_of)
    assert apart.promises == ()
    assert apart.short[0].use.ml == 500
    together = reserve([need("a", 0, 500)], tins, left, day_of, ["matt-paint"])
    assert [(p.lot, p.amount, p.several) for p in together.promises] == [("one", 300, True), ("two", 200, True)]
    plain = reserve([need("a", 0, 700, matches=False)], tins, left, day_of)
    assert [n.use.ml for n in plain.short] == [pytest.approx(100)]


def test_a_whole_tin_is_taken_before_one_that_is_too_small_where_it_must_match() -> None:
    tins = [tin("small", 100, keeps_until="2026-12-09"), tin("large", 600)]
    made = reserve([need("a", 0, 500)], tins, {t.slug: t.left for t in tins}, day_of)
    assert [(p.lot, p.amount) for p in made.promises] == [("large", 500)]


def test_colours_are_told_by_name_where_both_have_one_else_as_they_are_drawn() -> None:
    assert same_colour("Loft Ochre", "#000000", "loft ochre", "#ffffff")
    assert not same_colour("soot", "#000000", "night", "#000000")
    assert same_colour("", "#AABBCC", "soot", "#aabbcc")


def test_a_batch_is_made_from_one_jar_that_keeps_or_from_none() -> None:
    batches = [BatchWanted("b1", "rack", "Rack", "wash", 3 * DAY), BatchWanted("b2", "rack", "Rack", "wash", 6 * DAY)]
    jars = [
        JarLeft("late", 200, None, {"b1": 120, "b2": 120}),
        JarLeft("soon", 130, 4 * DAY, {"b1": 120, "b2": 120}),
        JarLeft("small", 60, None, {"b2": 120}),
    ]
    assert [(p.need, p.lot, p.amount) for p in from_jars(batches, jars)] == [("b1", "soon", 120), ("b2", "late", 120)]
    assert from_jars(batches[1:], jars[2:]) == ()
