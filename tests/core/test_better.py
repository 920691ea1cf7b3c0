"""What a workshop knows better than the book: it counts in every job, and can be put back."""

import pytest

from lumso.catalogue import shipped
from lumso.core.book.catalogue import ORDERED
from lumso.core.errors import InvalidValue, UnknownEntry
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.core.layers.conditions import steady
from lumso.core.plan.plan import plan
from lumso.core.workshop.better import FIELDS, Better, Kind, checked, laid_over, value_of
from lumso.core.workshop.workshop import Workshop
from tests.core.checks.stacks import layer
from tests.core.test_stack_plan import with_stack

C = shipped()
ALL = [(kind, field) for kind, fields in FIELDS.items() for field in fields]


def better(kind: Kind, slug: str, field: str, value: float, source: str = "label") -> Better:
    return Better(kind, slug, field, value, source, "2026-11-27")  # type: ignore[arg-type]


@pytest.mark.parametrize(("kind", "field"), ALL)
def test_every_value_that_can_be_known_better_is_one_of_its_entries_and_takes_its_place(kind: Kind, field: str) -> None:
    held = getattr(C, kind)
    entry = held[0] if kind in ORDERED else next(iter(held.values()))
    bound = FIELDS[kind][field]
    value = (bound.least + bound.most) / 2
    over = getattr(laid_over(C, (checked(better(kind, entry.slug, field, value)),)), kind)
    changed = next(e for e in (over if kind in ORDERED else over.values()) if e.slug == entry.slug)
    assert value_of(changed, field) == value
    others = [f for f in FIELDS[kind] if f != field]
    assert [value_of(changed, f) for f in others] == [value_of(entry, f) for f in others]


def test_what_nobody_believes_is_refused_with_what_is_allowed() -> None:
    with pytest.raises(InvalidValue) as refused:
        checked(better("grounds", "raw-oak", "first_coat_extra_ml_per_m2", 9000))
    assert refused.value.allowed == "0 to 500 ml/m²"
    with pytest.raises(UnknownEntry) as unknown:
        checked(better("grounds", "raw-oak", "colour", 1))
    assert "first_coat_extra_ml_per_m2" in unknown.value.known


def waits(job: Job, *known: Better) -> float | None:
    return plan(job, Workshop(better=known), C, steady()).zones[0].layers[0].wait_h


def test_a_label_beats_the_book_in_jobs_that_carry_their_entries_and_can_be_put_back(rack: Job) -> None:
    job = embed(with_stack(rack, layer("paint-plain", wait=None), "paint-plain"), C)
    assert waits(job) == 2
    assert waits(job, better("films", "mineral-paint", "times.recoat_from", 240)) == 4
    assert waits(job) == 2
    gone = better("films", "not-here", "times.recoat_from", 240)
    assert waits(job, gone) == 2


def test_a_label_s_time_is_never_undercut(rack: Job) -> None:
    # A dry brush waits a third of the usual two hours, a dried coat half of it; a label's two hours stand.
    thin = with_stack(rack, layer("paint-plain", "dry-brushed", wait=None), "paint-plain")
    hurried = with_stack(rack, layer("paint-plain", wait=None, dries_by="hair dryer"), "paint-plain")
    said = better("films", "mineral-paint", "times.recoat_from", 120)
    assert waits(thin) == pytest.approx(2 / 3)
    assert waits(hurried) == 1
    assert waits(thin, said) == waits(hurried, said) == 2
    assert waits(thin, better("films", "mineral-paint", "times.recoat_from", 120, "measured")) == pytest.approx(2 / 3)
