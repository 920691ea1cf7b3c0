"""The Lantern Loft: every demo job plans without a problem, in every measure system."""

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Job
from lumso.demo import demo_jobs, demo_workshop, seed
from lumso.formats.jobfile import from_json, to_json
from lumso.store import jobs, settings
from lumso.store.database import Database
from tests.conftest import planned

JOBS = demo_jobs()


def test_the_eleven_pieces_are_there() -> None:
    assert {job.name for job in JOBS} == {
        "Foyer bench",
        "Costume wardrobe",
        "Ticket counter",
        "Hat stand",
        "Programme rack",
        "Prop chest",
        "Picture frames",
        "Proscenium panels",
        "Green room hearth",
        "Foyer wall",
        "Outdoor notice board",
    }


@pytest.mark.parametrize("measures", ["us", "metric", "australian", "imperial"])
@pytest.mark.parametrize("job", JOBS, ids=lambda j: j.name)
def test_each_plans_whole(job: Job, measures: str) -> None:
    made = planned(job, measures)
    assert made.problems == ()
    assert made.drawing is not None
    for zone in made.zones:
        assert zone.area is not None
        for layer in zone.layers:
            assert layer.pots
            assert [x for x in layer.limits if x.crossed] == []


@pytest.mark.parametrize("job", JOBS, ids=lambda j: j.name)
def test_each_comes_back_from_its_file(job: Job) -> None:
    assert from_json(to_json(job)) == job


def test_old_finishes_in_the_loft_carry_their_caution() -> None:
    told = {job.name for job in JOBS for c in planned(job).cautions if c.rule == "lead-untested"}
    assert told == {"Costume wardrobe"}


def test_seeding_fills_an_empty_database_once(db: Database) -> None:
    catalogue = shipped()
    assert seed(db, catalogue) == len(JOBS)
    assert seed(db, catalogue) == 0
    assert from_json(jobs.get(db, jobs.page(db, 1).jobs[0].id).document).name == "Programme rack"
    assert demo_workshop(catalogue).kits


def test_what_was_put_away_or_chosen_is_not_written_over_by_the_demo_started_again(db: Database) -> None:
    catalogue = shipped()
    seed(db, catalogue)
    for job in jobs.page(db, 99).jobs:
        jobs.put_away(db, job.id, away=True)
        jobs.delete(db, job.id)
    settings.put(db, "workshop", '{"measures": "us"}')
    assert seed(db, catalogue) == 0
    assert jobs.page(db, 99).jobs == ()
    assert settings.get(db, "workshop").document == '{"measures": "us"}'


def test_seeding_that_is_cut_short_leaves_nothing_and_is_done_again(
    db: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    create = jobs.create
    made: list[str] = []

    def dies(db: Database, name: str, document: str) -> jobs.StoredJob:
        if len(made) == 3:
            raise KeyboardInterrupt
        made.append(name)
        return create(db, name, document)

    monkeypatch.setattr(jobs, "create", dies)
    with pytest.raises(KeyboardInterrupt):
        seed(db, shipped())
    assert db.is_untouched()
    monkeypatch.setattr(jobs, "create", create)
    assert seed(db, shipped()) == len(JOBS)
