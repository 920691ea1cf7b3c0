"""More coats than one order is found for: said in words with what can be done, at once, and everything else goes on."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Job
from lumso.core.layers.conditions import steady
from lumso.core.plan.plan import plan
from lumso.core.work import work as working
from lumso.core.work.sheet import mix_sheet
from lumso.core.workshop.workshop import Workshop
from tests.conftest import planned

ROOM = steady()


def with_coats(job: Job, coats: int) -> Job:
    zone = job.zones[0]
    return replace(job, zones=(replace(zone, layers=(replace(zone.layers[0], coats=coats),)),))


def test_a_job_at_the_bound_is_worked_out_and_one_coat_more_is_refused_in_words(
    rack: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(working, "MOST_COATS_TOGETHER", 4)
    assert planned(with_coats(rack, 4)).problems == ()
    made = planned(with_coats(rack, 5))
    (problem,) = made.problems
    assert problem.at == "/zones"
    assert problem.says.startswith("5 coats are more than can be put in one order")
    assert "several jobs" in problem.allowed
    assert made.zones[0].layers[0].pots == ()
    assert made.drawing is not None, "the piece is there all the same"
    assert made.zones[0].findings == planned(with_coats(rack, 4)).zones[0].findings, "and what goes wrong"


def test_jobs_on_one_sheet_are_counted_together(rack: Job, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(working, "MOST_COATS_TOGETHER", 4)
    job = with_coats(rack, 3)
    assert mix_sheet([job], Workshop(), shipped(), ROOM).problems == ()
    (problem,) = mix_sheet([job, job], Workshop(), shipped(), ROOM).problems
    assert "fewer jobs at once" in problem.allowed


def test_the_largest_job_a_file_can_hold_is_answered(rack: Job) -> None:
    layer = rack.zones[0].layers[0]
    zones = tuple(
        replace(rack.zones[0], id=f"z{z}", layers=tuple(replace(layer, id=f"l{i}", coats=12) for i in range(40)))
        for z in range(60)
    )
    made = plan(replace(rack, zones=zones), Workshop(), shipped(), ROOM)
    assert any("28,800 coats" in p.says for p in made.problems)
    assert len(made.zones) == 60
