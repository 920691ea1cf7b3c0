"""What a job carries of the book: pure, whole, and its own until the book's is taken."""

from dataclasses import fields, replace
from pathlib import Path

import pytest

from lumso.catalogue import shipped
from lumso.core.book.catalogue import Catalogue, Entries
from lumso.core.edits.edit import TakeEntry, edited
from lumso.core.errors import UnknownEntry
from lumso.core.job.entries import embed, kept_apart
from lumso.core.job.job import Job
from lumso.core.layers.conditions import steady
from lumso.core.plan.plan import Plan, plan
from lumso.core.workshop.known import book_of, known_to
from lumso.core.workshop.shelf import Overlay, ShelfItem
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from lumso.formats.jobfile import from_json

C = shipped()
HATS = next(job for job in demo_jobs() if job.name == "Hat stand")
POWDER = "milk-paint-powder"
OLD_3 = (Path(__file__).parents[1] / "formats" / "old" / "job-3.json").read_bytes()


def weighed(g_per_ml: float) -> Workshop:
    return Workshop(shelf=(ShelfItem(POWDER, overlays=(Overlay("bulk_density", g_per_ml, "measured", "2026-11-20"),)),))


def weight(made: Plan) -> float:
    """Grams to a ml of the powder in the first pot."""
    mix = made.zones[0].layers[0].pots[0].mix
    assert mix is not None
    return next(p.mass.value / p.poured.value for p in mix.parts if p.material == POWDER)


def changed_book(bulk_density: float) -> Catalogue:
    powder = replace(C.materials[POWDER], bulk_density=bulk_density)
    return replace(C, materials={**C.materials, POWDER: powder})


def test_a_value_put_back_is_back_in_jobs_that_were_saved_with_it() -> None:
    """0.66 g/ml weighed, and a job saved with it; deleted from the shelf, it is as if it had never been."""
    saved = embed(HATS, book_of(weighed(0.66), C))
    assert saved == embed(HATS, C)
    assert weight(plan(saved, weighed(0.66), C, steady())) == pytest.approx(0.66)
    assert weight(plan(saved, Workshop(), C, steady())) == pytest.approx(C.materials[POWDER].bulk_density)
    assert plan(saved, Workshop(), C, steady()) == plan(HATS, Workshop(), C, steady())


def test_what_is_weighed_later_is_true_in_a_job_that_carries_its_own() -> None:
    older = embed(HATS, changed_book(0.4))
    known = known_to(weighed(0.66), C, older.entries)
    assert known.materials[POWDER].bulk_density == 0.66
    assert known.materials[POWDER].sources["bulk_density"] == "measured"
    assert known_to(Workshop(), C, older.entries).materials[POWDER].bulk_density == 0.4


def test_a_material_of_the_workshop_changed_since_is_in_the_job_as_it_took_it_up() -> None:
    mine = replace(C.materials[POWDER], slug="loft-powder", name="Loft powder")
    recipe = C.recipes["milk-paint"]
    own = replace(
        recipe,
        slug="loft-paint",
        components=tuple(replace(c, material="loft-powder") if c.material == POWDER else c for c in recipe.components),
    )
    first = Workshop(recipes=(own,), shelf=(ShelfItem("loft-powder", own=mine),))
    zone = HATS.zones[0]
    job = replace(HATS, zones=(replace(zone, layers=(replace(zone.layers[0], recipe="loft-paint"),)),))
    saved = embed(job, book_of(first, C))
    later = replace(first, shelf=(ShelfItem("loft-powder", own=replace(mine, bulk_density=0.9)),))
    assert known_to(later, C, saved.entries).materials["loft-powder"] == mine
    assert [(k.slug, k.differs) for k in kept_apart(saved, book_of(later, C))] == [
        ("loft-powder", (f"bulk density: {mine.bulk_density:.3g} here, 0.9 in the book",))
    ]


@pytest.mark.parametrize("job", demo_jobs(), ids=lambda j: j.name)
def test_a_job_comes_to_the_same_wherever_it_is_opened(job: Job) -> None:
    """Another book altogether in everything a job carries: each kind of entry is the job's own."""
    carried = embed(job, C)
    other = replace(
        C,
        materials={s: replace(m, bulk_density=m.bulk_density * 0.9) for s, m in C.materials.items()},
        recipes={s: replace(r, name="Changed since") for s, r in C.recipes.items()},
        reliefs={s: replace(r, factor=2.9) for s, r in C.reliefs.items()},
        pot_losses={s: replace(p, share=0.5) for s, p in C.pot_losses.items()},
        consistencies=tuple(replace(c, viscosity_mpa_s=c.viscosity_mpa_s * 3) for c in C.consistencies),
        tools={s: replace(t, holds_ml=t.holds_ml + 40) for s, t in C.tools.items()},
        techniques={s: replace(t, wet_rate_ml_per_m2=t.wet_rate_ml_per_m2 * 2) for s, t in C.techniques.items()},
    )
    at_home = plan(carried, Workshop(), C, steady())
    abroad = plan(carried, Workshop(), other, steady())
    assert replace(abroad, kept=()) == at_home
    assert plan(job, Workshop(), other, steady()).totals != at_home.totals


def test_every_kind_of_entry_is_carried() -> None:
    carried = [embed(job, C).entries for job in demo_jobs()]
    for f in fields(Entries):
        assert any(getattr(entries, f.name) for entries in carried), f.name


def test_nothing_is_said_of_entries_that_are_as_in_the_book() -> None:
    assert kept_apart(embed(HATS, C), C) == ()
    assert plan(embed(HATS, C), weighed(0.66), C, steady()).kept == ()


def test_an_older_job_keeps_what_was_weighed_then_and_offers_the_book_s() -> None:
    """Version 3 laid the workshop's values into what a job carried: 0.66 g/ml for the powder, today's book has 0.75."""
    job = from_json(OLD_3)
    made = plan(job, Workshop(), C, steady())
    start = C.materials[POWDER].bulk_density
    told = {(k.kind, k.slug): k.differs for k in made.kept}
    assert told == {
        ("materials", POWDER): (f"bulk density: 0.66 here, {start:.3g} in the book",),
        ("techniques", "brushed-milk-paint"): ("wet rate ml per m2: 110 here, 75 in the book",),
        ("films", "milk-paint"): ("usual um: 110 here, 75 in the book",),
    }
    taken = edited(job, TakeEntry("take entry", "s", "materials", POWDER), C, steady()).job
    after = plan(embed(taken, C), Workshop(), C, steady())
    assert {(k.kind, k.slug) for k in after.kept} == set(told) - {("materials", POWDER)}
    assert weight(made) == pytest.approx(0.66)
    assert weight(after) == pytest.approx(start)
    assert {m.slug for m in taken.entries.materials} == {m.slug for m in job.entries.materials} - {POWDER}


def test_taking_an_entry_the_job_does_not_carry_says_which_it_does() -> None:
    job = from_json(OLD_3)
    with pytest.raises(UnknownEntry) as refused:
        edited(job, TakeEntry("take entry", "s", "materials", "moon-dust"), C, steady())
    assert POWDER in refused.value.known


def test_a_material_of_the_workshop_s_own_comes_before_one_of_the_same_name() -> None:
    own = replace(C.materials[POWDER], bulk_density=0.9)
    assert book_of(Workshop(shelf=(ShelfItem(POWDER, own=own),)), C).materials[POWDER] == own


def test_what_was_weighed_and_a_job_s_own_material_that_contradicts_it_still_make_a_plan() -> None:
    """A ml of the job's own powder weighs 0.5 g without air: 0.66 g with air cannot be true of it."""
    light = replace(C.materials[POWDER], bulk_density=0.15, true_density=0.5)
    job = embed(HATS, replace(C, materials={**C.materials, POWDER: light}))
    made = plan(job, weighed(0.66), C, steady())
    assert made.problems == ()
    assert weight(made) == pytest.approx(0.15)
    assert [k.slug for k in made.kept] == [POWDER]
