"""Durations as they are said: here, and by the interface, from one table."""

import json
from typing import cast

import pytest

from lumso.core.figure import Figure, Step, lasts, millilitres
from tests.conftest import ROOT

POURED = cast("list[tuple[float, str]]", json.loads((ROOT / "tests" / "amounts.json").read_text()))
SAID = cast("list[tuple[float, str]]", json.loads((ROOT / "tests" / "durations.json").read_text()))


@pytest.mark.parametrize(("minutes", "said"), SAID)
def test_a_duration_is_said_to_what_it_is_good_for(minutes: float, said: str) -> None:
    assert lasts(minutes) == said


@pytest.mark.parametrize(("ml", "said"), POURED)
def test_an_amount_is_said_as_finely_as_it_can_be_measured_out(ml: float, said: str) -> None:
    assert millilitres(ml) == said


def test_how_far_off_a_figure_may_be_adds_up_of_its_steps() -> None:
    rough = Figure(1.0, "m²", (), 0.3).then(Step("Wet rate", "", 75, "ml", "starting value", spread=0.4))
    assert rough.spread == pytest.approx(0.5)
    assert rough.then(Step("On the surface", "", 75, "ml", "geometry")).spread == pytest.approx(0.5)
