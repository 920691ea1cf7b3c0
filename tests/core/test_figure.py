"""Durations as they are said: here, and by the interface, from one table."""

import json
from typing import cast

import pytest

from lumso.core.figure import lasts
from tests.conftest import ROOT

SAID = cast("list[tuple[float, str]]", json.loads((ROOT / "tests" / "durations.json").read_text()))


@pytest.mark.parametrize(("minutes", "said"), SAID)
def test_a_duration_is_said_to_what_it_is_good_for(minutes: float, said: str) -> None:
    assert lasts(minutes) == said
