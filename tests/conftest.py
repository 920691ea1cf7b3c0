"""What all tests share: the shipped catalogue and the example job."""

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest
from fastapi import FastAPI
from hypothesis import HealthCheck, settings

from lumso.api.app import create_app
from lumso.catalogue import shipped
from lumso.core.book.catalogue import Catalogue
from lumso.core.job.job import Job, Layer
from lumso.core.layers.conditions import steady
from lumso.core.mixing.mix import Mix
from lumso.core.plan.plan import Plan, plan
from lumso.core.workshop.workshop import Workshop
from lumso.formats.jobfile import from_json
from lumso.store.database import Database
from tests.counts import PROOF, count

ROOT = Path(__file__).parent.parent

# In CI the same examples every time, by `make proof` others, whose seed it prints. No verdict on how fast this machine
# is today: tests do not assert times.
settings.register_profile(
    "lumso",
    deadline=None,
    derandomize=not PROOF,
    print_blob=PROOF,
    max_examples=count("examples"),
    suppress_health_check=[HealthCheck.too_slow],
)
settings.load_profile("lumso")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """What takes a minute whatever it does runs by `make proof` alone."""
    if not PROOF:
        slow = [item for item in items if item.get_closest_marker("slow_proof")]
        config.hook.pytest_deselected(items=slow)
        items[:] = [item for item in items if item not in slow]


@pytest.fixture(scope="session")
def catalogue() -> Catalogue:
    return shipped()


@pytest.fixture(scope="session")
def app(catalogue: Catalogue, tmp_path_factory: pytest.TempPathFactory) -> FastAPI:
    """The real application, built once; each test gives it a context of its own."""
    database = Database(tmp_path_factory.mktemp("app") / "none.sqlite3")
    built = create_app(database, catalogue)
    database.close()
    return built


@pytest.fixture
def rack() -> Job:
    """The programme rack: a 1000 × 500 × 20 mm board of raw pine; of its stack only the rubbed-in wash."""
    whole = from_json((ROOT / "examples" / "programme-rack.json").read_bytes())
    (zone,) = whole.zones
    return replace(whole, zones=(replace(zone, layers=zone.layers[:1], prep=()),))


@pytest.fixture
def db(tmp_path: Path) -> Iterator[Database]:
    database = Database(tmp_path / "workshop.sqlite3")
    yield database
    database.close()


def planned(job: Job, measures: str = "metric") -> Plan:
    return plan(job, Workshop(measures=measures), shipped(), steady())


def only_mix(made: Plan) -> Mix:
    """The one mix of the first layer of the first zone, which must have been planned."""
    assert made.problems == ()
    (pot,) = made.zones[0].layers[0].pots
    return pot.mix


def with_layer(job: Job, **changes: object) -> Job:
    """The job with its first layer changed."""
    zone = job.zones[0]
    layer: Layer = replace(zone.layers[0], **changes)  # type: ignore[arg-type]
    return replace(job, zones=(replace(zone, layers=(layer, *zone.layers[1:])), *job.zones[1:]))
