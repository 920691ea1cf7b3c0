"""What is left: how much water left it, until when it keeps, what it is good for; and a batch made again, by hand."""

from dataclasses import replace
from math import pi

import pytest

from lumso.catalogue import shipped
from lumso.core.errors import InvalidValue
from lumso.core.log.acts import Begun, Left, LostWater, Noted, PotAct, Poured, Stuff
from lumso.core.log.again import again, what_changed
from lumso.core.log.event import Event
from lumso.core.log.jars import Wanted, jar_now, lost_since, mouth_m2, uses_of
from lumso.core.log.pot import PotState, replay
from lumso.core.log.summary import PotSummary, summed_up
from lumso.core.work.operations import Operation

BOOK = shipped()
GREEN = Stuff("paint", "matt-paint", "Paint", "paint", False, 1.35, 1.35, "green", "#2f6f62")
WATER = Stuff("water", "water", "Water", "water", False, 1.0, 1.0)
PLASTER = Stuff("plaster", "plaster", "Plaster", "powder", True, 0.95, 2.65)
BEGUN = Begun(
    "begun", "j", "b1", "mofa-27", "Wash", "green", "#2f6f62", "jam jar", "wash", "rubbed", "milk", ("Lid",), 60, 8
)
DAY = 1440.0


def pot(*acts: PotAct, begun: Begun = BEGUN) -> PotState:
    notes = [Noted(f"e{i}", a, float(i)) for i, a in enumerate((begun, *acts))]
    pots, faults = replay(notes)
    assert faults == ()
    return pots["j"]


def poured(stuff: Stuff, g: float) -> Poured:
    return Poured("poured", "j", stuff, g, "scale")


WASH = (poured(GREEN, 54), poured(WATER, 120))  # 40 and 120 ml: three quarters of water


def jar(closed: str = "lid", g: float = 87.0, more: tuple[PotAct, ...] = ()) -> PotState:
    return pot(*WASH, Left("left", "j", g, "scale", closed), *more)  # type: ignore[arg-type]


def test_water_leaves_by_the_mouth_by_how_it_is_closed() -> None:
    wide = (4 * 370 / pi) ** (1 / 3)
    assert mouth_m2(370) == pytest.approx(pi * wide**2 / 4 / 10_000)  # 47 cm²
    per_day = 100 * mouth_m2(370)
    assert lost_since(jar("wrapped"), 3 + 2 * DAY, 1.0, BOOK.vessels) == pytest.approx(2 * per_day)
    assert lost_since(jar("wrapped"), 3 + 2 * DAY, 2.0, BOOK.vessels) == pytest.approx(per_day)
    assert lost_since(jar("lid"), 3 + 2 * DAY, 1.0, BOOK.vessels) == pytest.approx(per_day / 10)
    held = sum(h.g for h in jar("open").held if h.stuff.role == "water")
    assert lost_since(jar("open"), 3 + 400 * DAY, 1.0, BOOK.vessels) == pytest.approx(held * 0.95)
    weighed = jar("wrapped", more=(LostWater("lost water", "j", 1.0, "weighed"),))
    assert lost_since(weighed, 4 + DAY, 1.0, BOOK.vessels) == pytest.approx(per_day)  # since it was weighed


def test_a_jar_keeps_as_long_as_its_mix_and_says_how_it_is_thrown_away() -> None:
    now = jar_now(jar(), 3 + DAY, 1.0, 2.0, BOOK.vessels, BOOK.materials)
    assert [now.ml, now.water] == pytest.approx([80, 0.75])
    assert not now.past
    assert now.keeps_until_min == 3 + 2 * DAY
    assert jar_now(jar(), 3 + 3 * DAY, 1.0, 2.0, BOOK.vessels, BOOK.materials).past
    assert jar_now(jar(), 3 + 300 * DAY, 1.0, None, BOOK.vessels, BOOK.materials).keeps_until_min is None
    set_hard = pot(poured(PLASTER, 50), poured(WATER, 50), Left("left", "j", 40, "scale"))
    assert "sets hard" in jar_now(set_hard, 5, 1.0, 1.0, BOOK.vessels, BOOK.materials).discard


def wanted(ml: float, water: float, **more: object) -> Wanted:
    one = Wanted(
        "job", "Chest", "z", "l", "a wash on lid", "wash", "green", "#2f6f62", ml, water, ("matt-paint", "water")
    )
    return replace(one, **more)  # type: ignore[arg-type]


def test_a_jar_is_used_as_it_is_with_water_or_as_a_start() -> None:
    (same,) = uses_of(jar(), [wanted(100, 0.75)])
    assert same.how == "as it is"
    assert [same.covers, same.tint] == pytest.approx([0.8, 1.0])
    # 20 ml of paint in it make 100 ml at four fifths of water: 20 ml of water more.
    (thinner,) = uses_of(jar(), [wanted(100, 0.8)])
    assert thinner.how == "with water"
    assert thinner.covers == pytest.approx(1.0)
    assert thinner.add_water_ml == pytest.approx(20)
    assert uses_of(jar(), [wanted(100, 0.5)]) == ()  # water does not come out again
    (start,) = uses_of(jar(), [wanted(200, 0.5, colour="red", hex="#8c2f2b")])
    assert start.how == "as the start of it"
    assert start.tint == pytest.approx(20 / 100)
    assert uses_of(jar(), [wanted(40, 0.5, colour="red", hex="#8c2f2b")]) == ()  # it would be more green than red
    other = wanted(100, 0.75, recipe="milk-paint", materials=("milk-paint-powder", "water"))
    assert uses_of(jar(), [other]) == ()  # another binder


def summary(state: PotState, *events: Event) -> PotSummary:
    return summed_up(state, "job", "Chest", events)


def lay(film_ml: float) -> Operation:
    return Operation("lay", "lay", "Lay it", batch="b1", film_ml=film_ml)


def test_what_the_surface_took_is_what_is_missing_less_what_was_to_be_lost() -> None:
    """160 ml mixed, 80 left, 8 lost: 72 ml for 60."""
    done = Event("d", "job", "lay", "done", 9, planned=lay(60))
    assert summary(jar(), done).rate == pytest.approx(72 / 60)
    assert summary(jar()).rate == 0  # nobody said that it was laid
    half = replace(BEGUN, laid_ml=120.0)
    state = pot(*WASH, Left("left", "j", 87, "scale"), begun=half)
    assert summary(state, done).rate == pytest.approx(72 / 60)  # half of what it was for was done
    assert summary(pot(*WASH), done).rate == 0  # nobody said what is left
    lossy = pot(*WASH, Left("left", "j", 160, "scale"), begun=replace(BEGUN, lost_ml=30.0))
    assert summary(lossy, done).rate == 0  # mostly lost
    learnt = pot(*WASH, Left("left", "j", 87, "scale"), begun=replace(BEGUN, rate_factor=1.25))
    assert summary(learnt, done).rate == pytest.approx(72 / 60 * 1.25)


def test_made_again_it_keeps_its_shares_and_what_changed_is_said_the_most_first() -> None:
    one = summary(pot(*WASH))
    twice = again(one, 320)
    assert [x.g for x in twice.lines] == pytest.approx([108, 240])
    assert [x.ml for x in twice.lines] == pytest.approx([80, 240])
    with pytest.raises(InvalidValue, match="Nothing was poured"):
        again(summary(pot()), 100)
    richer = summary(pot(poured(GREEN, 108), poured(WATER, 120)))
    changed = what_changed(one, richer)
    assert [d.what for d in changed] == ["Paint, green", "Water", "Amount"]
    assert changed[0].by == pytest.approx(0.4 / 0.25 - 1)
    assert changed[0].before == "25.0% of the whole"
    assert what_changed(one, one) == ()
    without = what_changed(one, summary(pot(poured(GREEN, 54))))
    assert ("Water", "75.0% of the whole", "none") in [(d.what, d.before, d.after) for d in without]
