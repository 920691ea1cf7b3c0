"""Laws of coats, windows and waits that no order of work worked by hand would show broken."""

from dataclasses import replace
from types import SimpleNamespace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.colours import Pot
from lumso.core.job.job import Job
from lumso.core.layers.conditions import steady
from lumso.core.layers.drying import takes_min, wait_for
from lumso.core.work.coats import _slowness, longest_patch_min
from lumso.core.work.work import work
from lumso.core.work.zone import prep_wait
from lumso.core.workshop.workshop import Workshop

C = shipped()


def test_each_pot_of_a_layer_takes_its_share_of_the_time_of_laying(rack: Job) -> None:
    """0.56 m² at 5 m²/h are 6.72 min: a pot of seven tenths takes 4.7 of them, the other the rest."""
    (zone,) = rack.zones
    (wash,) = zone.layers
    two = replace(wash, pots=(Pot("sea", "Sea", share=0.7), Pot("sand", "Sand", share=0.3)))
    made = work(replace(rack, zones=(replace(zone, layers=(two,)),)), Workshop(), C, steady())
    took = {o.pot: o.hands_on_min for o in made.operations if o.kind == "lay"}
    assert took == pytest.approx({"sea": 0.7 * 0.56 / 5 * 60, "sand": 0.3 * 0.56 / 5 * 60})


@given(st.floats(0.5, 10), st.floats(11, 60), st.floats(1, 6), st.floats(0.3, 1))
def test_no_patch_is_laid_for_longer_than_until_its_window_closes(
    opens: float, closes: float, pace: float, used: float
) -> None:
    """However little slower it is laid than worked: what was laid first must still be open when it is come back to."""
    longest = longest_patch_min(opens, closes, pace, used)
    assert 0 < longest <= used * closes + 1e-9
    begun = max(longest / used, opens)  # by the whole window: worked from then on, the first and the last spot in time
    assert begun <= closes + 1e-9
    assert opens + (longest / used) * (1 - 1 / pace) <= closes + 1e-9


@pytest.mark.parametrize("moment", ["touch", "recoat_from"])
def test_the_thinnest_film_still_takes_a_third_of_its_time(moment: str) -> None:
    film = next(f for f in C.films.values() if f.kind == "paint" and f.carrier == "water")
    usual = getattr(film.times, moment)
    assert wait_for(film, moment, film.usual_um / 100).reference_min == pytest.approx(usual / 3)  # type: ignore[arg-type]
    assert wait_for(film, moment, film.usual_um / 2).reference_min == pytest.approx(usual / 2)  # type: ignore[arg-type]


@pytest.mark.parametrize(("um", "late"), [(3.0, 1 / 3), (150.0, 0.5), (300.0, 1.0), (450.0, 1.5)])
def test_a_breath_of_a_coat_is_ready_for_part_dry_work_no_sooner_than_in_a_third(um: float, late: float) -> None:
    film, technique = SimpleNamespace(usual_um=300.0), SimpleNamespace(per_mm=False)
    laid: Any = SimpleNamespace(film=film, technique=technique, wet_um=um)
    assert _slowness(laid) == pytest.approx(late)


def test_filler_wants_its_night_in_the_driest_room_and_a_rinse_only_its_air() -> None:
    hot = steady(35, 0.2)
    assert takes_min(prep_wait(replace(C.preparations["holes-filled"], wait_min=480)), hot) == 480
    assert (takes_min(prep_wait(C.preparations["holes-filled"]), hot) or 0) >= 480
    assert (takes_min(prep_wait(C.preparations["degreased"]), hot) or 0) < 60
