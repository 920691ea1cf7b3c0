"""The Lantern Loft: every demo job plans without a problem, in every measure system."""

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Job
from lumso.demo import demo_jobs, demo_workshop, seed
from lumso.formats.jobfile import from_json, to_json
from lumso.store import jobs
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
    assert from_json(jobs.every(db)[0].document).name == "Programme rack"
    assert demo_workshop(catalogue).kits
