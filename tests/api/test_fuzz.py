"""Every call of the description, asked with what it allows and with what it does not: no 5xx, no answer it hides."""

import json
from collections.abc import Iterator
from typing import Any

import pytest
import schemathesis
from fastapi import FastAPI
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode
from schemathesis.checks import CHECKS, load_all_checks

from lumso.api.app import create_app
from lumso.catalogue import shipped
from lumso.demo import seed
from lumso.services.context import Context
from lumso.store.database import Database
from tests.at_once import AtOnce
from tests.conftest import ROOT
from tests.counts import PROOF, count

load_all_checks()


@schemathesis.serializer("application/zip")
def _as_it_is(ctx: schemathesis.SerializationContext, value: Any) -> bytes:
    return value if isinstance(value, bytes) else str(value).encode()


NOT_HERE = {
    "positive_data_acceptance",  # what has the right shape may still be refused: a slug nobody knows, a stale revision
    "ignored_auth",  # nobody is asked who they are at the workshop's own machine
    "use_after_free",  # what is taken out is set aside under its slug, and made again under it
    "ensure_resource_availability",  # a job that is begun may be put away by the next call
}


CHECKED: Any = CHECKS.get_by_names([name for name in CHECKS.get_all_names() if name not in NOT_HERE])
HERE = {"Host": "127.0.0.1"}
DESCRIPTION = json.loads((ROOT / "ui" / "api.json").read_text(encoding="utf-8"))
CALLS = [(path, method) for path, calls in DESCRIPTION["paths"].items() for method in calls]


@pytest.fixture(scope="module")
def fuzzed(tmp_path_factory: pytest.TempPathFactory) -> Iterator[FastAPI]:
    database = Database(tmp_path_factory.mktemp("fuzz") / "fuzz.sqlite3")
    seed(database, shipped())
    app = create_app(database, shipped())
    app.state.context = Context(database, shipped())
    app.state.solver = AtOnce()
    yield app
    app.state.context.db.close()


@pytest.fixture(scope="module")
def api(fuzzed: FastAPI) -> schemathesis.BaseSchema:
    return schemathesis.openapi.from_asgi("/api/openapi.json", fuzzed, headers=HERE)


MODES = list(GenerationMode)
ASKED = [(path, method, mode) for n, (path, method) in enumerate(CALLS) for k, mode in enumerate(MODES)
         if PROOF or k == n % len(MODES)]  # fmt: skip
"""In CI every call one way, by turns; by `make proof` both ways."""


@pytest.mark.parametrize(("path", "method", "mode"), ASKED, ids=lambda part: getattr(part, "value", part))
def test_no_call_breaks_and_every_answer_is_as_described(
    api: schemathesis.BaseSchema, path: str, method: str, mode: GenerationMode
) -> None:
    operation = api[path][method]

    @settings(
        max_examples=count("calls of the API"),
        derandomize=not PROOF,
        deadline=None,
        database=None,
        phases=[Phase.explicit, Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(operation.as_strategy(generation_mode=mode))
    def asked(case: schemathesis.Case[Any]) -> None:
        case.call_and_validate(headers=HERE, checks=CHECKED)

    try:
        asked()
    except Unsatisfiable:
        assert mode is GenerationMode.NEGATIVE  # nothing can be wrong with it
