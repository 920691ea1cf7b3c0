"""What a job takes to the shop: what its batches pour, colour by colour, and the things its operations use up."""

from dataclasses import replace
from math import sqrt

import pytest

from lumso.core.book.catalogue import Catalogue
from lumso.core.buying.needs import Asked, counted, needs_of
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room
from lumso.core.work.work import Work, work
from lumso.core.workshop.workshop import Workshop
from lumso.formats.jobfile import from_json
from tests.conftest import ROOT


@pytest.fixture(scope="module")
def made(catalogue: Catalogue) -> Work:
    job = from_json((ROOT / "examples" / "programme-rack.json").read_bytes())
    return work(job, Workshop(), catalogue, Room())


def asked(made: Work, *done: str) -> Asked:
    return Asked("rack", "Rack", made, done, lambda operation, after: 1000.0 + after)


def test_materials_are_what_the_batches_pour_with_water_left_at_the_tap(made: Work, catalogue: Catalogue) -> None:
    found = [n for n in needs_of(asked(made), catalogue)[0] if n.kind == "material"]
    poured = [p for b in made.batches for p in b.mix.parts if p.role != "water"]
    assert sum(n.use.g for n in found) == pytest.approx(sum(p.mass.value for p in poured))
    assert {n.use.item for n in found} == {p.material for p in poured}
    assert all(n.use.hex for n in found if n.use.item == "matt-paint")
    assert all(not n.use.hex for n in found if n.use.item == "clear-coat")
    batch = made.batches[0]
    first = next(n for n in found if n.id.startswith(f"rack|{batch.id}|"))
    assert first.use.at_min == 1000 + batch.mix_at_h * 60
    assert first.use.by == "rack"


def test_what_was_mixed_asks_for_nothing_any_more(made: Work, catalogue: Catalogue) -> None:
    batch = made.batches[0]
    before, after = (
        [n.id for n in needs_of(one, catalogue)[0] if n.kind == "material"]
        for one in (asked(made), asked(made, f"{batch.id}:mix"))
    )
    assert [i for i in before if i not in after] == [i for i in before if f"|{batch.id}|" in i]
    assert after == [i for i in before if f"|{batch.id}|" not in i]


def test_paper_goes_by_area_and_clogs_faster_on_paint_than_on_bare_wood(made: Work, catalogue: Catalogue) -> None:
    things = catalogue.things
    for thing, amount, _ in counted(made, (), things):
        if thing.aisle != "abrasives":
            continue
        grit = thing.name.split()[0]
        ours = [o for o in made.operations if any(grit in t.replace(",", " ").split() for t in o.tools)]
        # Paint clogs it: between coats eight sheets where five would do on bare wood.
        by_hand = sum(thing.amount * o.area_m2 * (1.6 if o.kind == "sand" else 1.0) for o in ours)
        assert amount == pytest.approx(by_hand)
    raw = [n for n in needs_of(asked(made), catalogue)[0] if n.use.item == "paper-p180"]
    assert [n.use.count for n in raw] == [1.0]  # 0.56 m² of it, and nobody sells half a sheet


def test_gloves_and_masks_go_by_the_times_the_bench_is_laid_out(made: Work, catalogue: Catalogue) -> None:
    by = {t.slug: n for t, n, _ in counted(made, (), catalogue.things)}
    sessions = sum(o.kind == "lay out" for o in made.operations)
    assert 1 <= by["gloves"] <= sessions
    assert 1 <= by["dust-mask"] <= sessions
    assert "vapour-filter" not in by  # nothing here holds solvent


def test_dust_of_untested_old_paint_asks_for_the_finer_filter(catalogue: Catalogue) -> None:
    job = from_json((ROOT / "src/lumso/demo/jobs/costume-wardrobe.json").read_bytes())
    risky = replace(job, zones=tuple(replace(z, prep=("scuffed", *z.prep)) for z in job.zones))
    by = {t.slug: n for t, n, _ in counted(work(risky, Workshop(), catalogue, Room()), (), catalogue.things)}
    assert by.get("dust-mask-p3", 0) >= 1


def test_tools_that_last_are_worn_and_not_bought(made: Work, catalogue: Catalogue) -> None:
    every = {t.slug: (t, n) for t, n, _ in counted(made, (), catalogue.things)}
    lasting = [t for t, _ in every.values() if t.lasts]
    assert set(needs_of(asked(made), catalogue)[1]) == {t.name for t in lasting}
    bought = {n.use.item for n in needs_of(asked(made), catalogue)[0]}
    assert not bought & {t.slug for t in lasting}
    for thing, amount in every.values():
        if thing.per == "clean":
            cleaned = sum(o.kind == "clean" and thing.name in o.tools for o in made.operations)
            assert amount == pytest.approx(cleaned * thing.worn)


def test_tape_is_counted_by_the_edge_of_a_square_until_a_layout_says_better(catalogue: Catalogue) -> None:
    job = from_json((ROOT / "src/lumso/demo/jobs/proscenium-panels.json").read_bytes())
    bare = tuple(replace(z, layers=tuple(replace(x, layout=None) for x in z.layers)) for z in job.zones)
    made = work(replace(job, zones=bare), Workshop(), catalogue, Room())
    by = {t.slug: n for t, n, _ in counted(made, (), catalogue.things)}
    taped = [o.area_m2 for o in made.operations if any("tape" in t for t in o.tools)]
    assert by["masking-tape"] == pytest.approx(sum(1.1 * 4 * sqrt(a) for a in taped))


def test_a_job_with_no_piece_takes_nothing_but_its_mix(catalogue: Catalogue, rack: Job) -> None:
    bare = replace(rack, zones=(replace(rack.zones[0], layers=()),))
    made = work(bare, Workshop(), catalogue, Room())
    assert [n for n in needs_of(asked(made), catalogue)[0] if n.kind == "material"] == []
