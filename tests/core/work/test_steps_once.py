"""A bench sheet says each thing once, and then where it was said; nothing of it is lost."""

import pytest

from lumso.catalogue import shipped
from lumso.core.layers.conditions import steady
from lumso.core.work.steps import SHORT, steps_of
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}


@pytest.mark.parametrize("name", ["Prop chest", "Costume wardrobe", "Picture frames"])
def test_what_a_step_leaves_out_is_said_by_the_steps_it_names(name: str) -> None:
    steps = steps_of(work(JOBS[name], Workshop(), C, steady()), steady()).steps
    said = [{*s.how, s.check, *(() if s.wait_told else (s.wait_check,))} for s in steps]
    for at, step in enumerate(steps):
        elsewhere = set().union(*(said[n - 1] for n in step.as_at)) if step.as_at else set()
        assert all(n <= at for n in step.as_at)
        whole = {line for line in (*step.operation.how, step.operation.check, step.wait_check) if line}
        assert {line for line in whole - said[at] - elsewhere if len(line) > SHORT} == set()


def test_each_long_text_stands_once() -> None:
    steps = steps_of(work(JOBS["Prop chest"], Workshop(), C, steady()), steady()).steps
    told = [line for s in steps for line in (*s.how, s.check) if len(line) > SHORT]
    assert len(told) == len(set(told))


def test_what_is_done_while_a_coat_is_part_dry_is_said_by_what_one_does() -> None:
    steps = steps_of(work(JOBS["Prop chest"], Workshop(), C, steady()), steady()).steps
    knocked = [s.operation.says for s in steps if s.operation.kind == "part-dry"]
    assert knocked
    assert all(
        s.startswith("Knock the highest peaks back: salt wash") and s.endswith("min after laying") for s in knocked
    )
