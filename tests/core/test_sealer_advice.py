"""Which sealer: the first good answer with the wait it wants; and the one thing to change where there is none."""

from dataclasses import replace
from itertools import count

import pytest

from lumso.catalogue import shipped
from lumso.core.advice import Advice, advise, trial
from lumso.core.changes.change import InsertLayer, SetLayer, apply
from lumso.core.checks import check, look
from lumso.core.checks.findings import ALARMS
from lumso.core.edits.beginning import Beginning, begun
from lumso.core.job.job import Job, Place, Touch
from lumso.core.layers.conditions import Room
from tests.counts import some

C = shipped()


def asked(job: Job) -> Advice:
    return advise(job.zones[0], trial(job, 0, C, Room()), (f"n{i}" for i in count()))


def piece(form: str, ground: str, touched: tuple[Touch, ...] = (), place: tuple[Place, ...] = (), **on: str) -> Job:
    job = begun(Beginning("s", form, (), ground, **on), C, Room()).job  # type: ignore[arg-type]
    return replace(job, use=replace(job.use, touched_by=touched, place=place))


def test_an_outdoor_bench_is_told_the_one_that_stands_weather_and_how_long_to_wait() -> None:
    said = asked(piece("bench", "raw-oak", ("weather",), ("outdoors",), recipe="paint-wash-raw-wood"))
    best = said.sealers[0]
    assert (best.recipe, best.verdict) == ("exterior-clear-coat-plain", "best")
    assert best.wait_h == pytest.approx(6)
    assert said.sealer_change == ""


def test_outdoors_alone_says_what_it_must_stand() -> None:
    said = asked(piece("bench", "raw-oak", (), ("outdoors",), recipe="paint-wash-raw-wood"))
    assert said.sealer_asks == ""
    assert said.sealers[0].recipe == "exterior-clear-coat-plain"


def test_the_best_leaves_no_alarm_once_it_is_taken_with_its_wait() -> None:
    for finish in some("finishes that are sealed", list(C.finishes)):
        for touched in (("hands",), ("hands", "water"), ("weather",), ("feet", "water")):
            job = piece("side-table", "raw-pine", touched, (), finish=finish)
            best = next((s for s in asked(job).sealers if s.verdict == "best"), None)
            if best is None or best.remedy is None:
                continue
            bench = trial(job, 0, C, Room())
            zone = apply(job.zones[0], best.remedy.changes, C, (f"x{i}" for i in count()))
            after = [f for f in check(bench.stack(zone)) if f.grade == "will fail" and f.accepted is None]
            assert after == [], (finish, touched, best.recipe)


def test_of_those_that_will_do_the_tougher_comes_first_then_the_shorter_wait() -> None:
    said = asked(piece("dining-table", "raw-pine", ("hands", "water", "heat"), recipe="paint-plain"))
    good = [s for s in said.sealers if s.verdict != "not here"]
    tough = [sum({"no": 0, "a little": 1, "yes": 2}[s.stands.get(u, "no")] for u in ("hands", "water", "heat"))
             for s in good]  # fmt: skip
    assert tough == sorted(tough, reverse=True)
    assert good[0].verdict == "best"
    for a, b in zip(good, good[1:], strict=False):
        ta, tb = tough[good.index(a)], tough[good.index(b)]
        assert ta > tb or (a.wait_h or 0) <= (b.wait_h or 0)


def test_a_bare_ground_as_it_is_is_no_answer() -> None:
    said = asked(piece("bench", "raw-oak", ("weather",)))
    assert said.sealers[0].recipe == "exterior-clear-coat-plain"
    assert said.sealers[-1].recipe == ""
    assert all(s.verdict != "best" for s in said.sealers if s.recipe == "")


def test_where_no_sealer_will_do_the_one_thing_to_change_is_named() -> None:
    job = piece("bench", "raw-oak", ("weather", "feet"), ("outdoors",), recipe="clear-wax-plain")
    job = replace(job, zones=(replace(job.zones[0], layers=(*job.zones[0].layers, replace(job.zones[0].layers[0],
                  id="w", recipe="dark-wax-plain"))),))  # fmt: skip
    said = asked(job)
    assert all(s.verdict == "not here" for s in said.sealers)
    assert "wax" in said.sealer_change.lower()
    nearest = min((s for s in said.sealers if s.recipe), key=lambda s: sum(a.grade in ALARMS for a in s.against))
    assert nearest.name.lower() in said.sealer_change


def test_a_remedy_that_would_bring_an_alarm_is_told_with_it_and_never_taken_of_itself() -> None:
    told = 0
    for slug in some("recipes with a remedy", list(C.recipes)):
        for ground in ("raw-pine", "old-gloss", "waxed", "painted-sealed"):
            job = piece("side-table", ground, ("hands", "water"), recipe=slug)
            bench = trial(job, 0, C, Room())
            stack = bench.stack(job.zones[0])
            had = {f.rule for f in look(stack) if f.grade != "good to know"}
            for one in asked(job).brings:
                told += 1
                way = next(w for f in check(stack) if f.rule == one.rule for w in f.remedies if w.says == one.remedy)
                zone = apply(job.zones[0], way.changes, C, (f"x{i}" for i in count()))
                after = {f.rule: f for f in look(bench.stack(zone)) if f.grade != "good to know"}
                assert one.grade != "good to know"
                assert any(f.says == one.says for f in after.values()) or one.rule in had
    assert told > 0


def test_waits_are_put_on_what_lies_beneath_the_sealer() -> None:
    job = piece("bench", "raw-oak", ("weather",), recipe="paint-wash-raw-wood")
    best = asked(job).sealers[0]
    assert best.remedy
    assert not [c for c in best.remedy.changes if isinstance(c, SetLayer)], "a wait nobody typed is as long by itself"
    assert any(isinstance(c, InsertLayer) for c in best.remedy.changes)
    bench = trial(job, 0, C, Room())
    zone = apply(job.zones[0], best.remedy.changes, C, (f"x{i}" for i in count()))
    assert bench.stack(zone).waits_h(0) == pytest.approx(best.wait_h)
    typed = replace(job.zones[0], layers=(replace(job.zones[0].layers[0], wait_h=1.0),))
    hurried = replace(job, zones=(typed,))
    waits = [c for s in asked(hurried).sealers[:1] if s.remedy for c in s.remedy.changes if isinstance(c, SetLayer)]
    assert [c.layer for c in waits] == [job.zones[0].layers[0].id]
    assert [c.wait_h for c in waits if c.wait_h is not None] == pytest.approx([best.wait_h])
