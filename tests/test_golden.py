"""Jobs of old versions come to what they came to before; what moved is named, with why.

`golden/before.json` was written by the code of job file version 4: what these files came to then.
"""

import json
from pathlib import Path
from typing import Any

import pytest

from lumso.catalogue import shipped
from lumso.core.layers.conditions import steady
from lumso.core.memory import Memo
from lumso.core.plan.plan import Plan, plan_of
from lumso.core.work.work import Work, work
from lumso.core.workshop.workshop import Workshop
from lumso.formats.jobfile import from_json

HERE = Path(__file__).parent
BEFORE: dict[str, Any] = json.loads((HERE / "golden" / "before.json").read_text(encoding="utf-8"))

SAID_ANEW = {
    "job-2": {
        # painted wood asks the lead question, and a test among the preparations is only a plan
        "prop-chest-z1": {"can hurt: lead-untested above prop-chest-l1"},
        "prop-chest-z2": {"can hurt: lead-untested above prop-chest-l2"},
    },
    "job-3": {
        # resin comes through milk paint as through any other; ochre over pine shows it in thin spots after one coat
        f"hat-stand-z{n}": {
            f"risky: knots-bleed above hat-stand-z{n}-1", f"good to know: too-few-coats above hat-stand-z{n}-1",
        } for n in (1, 2, 3)
    },
    "job-4": {
        # one coat of sealer on texture that lies flat and is handled wears through
        "prop-chest-z1": {"can hurt: lead-untested above prop-chest-z1-1", "risky: one-thin-sealer above "},
        "prop-chest-z2": {"can hurt: lead-untested above prop-chest-z2-1"},
    },
}  # fmt: skip
NO_LONGER_SAID = {
    "job-3": {f"hat-stand-z{n}": {f"good to know: knots-bleed above hat-stand-z{n}-1"} for n in (1, 2, 3)},
}
OVER_TEXTURE = 1 + 0.6 * 0.8
"""Paint over peaks 0.8 mm thick in the mean covers so many times the flat area."""
MORE = {
    # Lid and body share a pot and a brush: less the 10 ml that stay in it, over the texture
    "prop-chest-z1:prop-chest-z1-6:1:pot:b1": lambda ml: ((ml / 1.1 - 10) * OVER_TEXTURE + 10) * 1.1,
    "prop-chest-z1:prop-chest-z1-7:1:pot:b1": lambda ml: ((ml / 1.1 - 10) * OVER_TEXTURE + 10) * 1.1,
}


@pytest.fixture(scope="module", params=sorted(BEFORE))
def case(request: pytest.FixtureRequest) -> tuple[str, Plan, Work]:
    job = from_json((HERE / "formats" / "old" / f"{request.param}.json").read_bytes())
    made = work(job, Workshop(), shipped(), steady())
    return request.param, plan_of(made, Workshop(), steady(), Memo()), made


def test_areas_waits_and_films_are_as_they_were(case: tuple[str, Plan, Work]) -> None:
    name, made, _ = case
    for zone in made.zones:
        old = BEFORE[name]["zones"][zone.zone]
        assert (round(zone.area.value, 3) if zone.area else None) == old["area_m2"]
        assert {x.layer: x.film for x in zone.layers} == {k: v["film"] for k, v in old["layers"].items()}
        for layer in zone.layers:
            assert layer.wait_h == pytest.approx(old["layers"][layer.layer]["wait_h"], abs=1e-3), layer.layer
    assert [p.at for p in made.problems] == BEFORE[name]["problems"]


def test_the_checker_finds_what_it_found_but_for_what_is_named(case: tuple[str, Plan, Work]) -> None:
    name, made, _ = case
    for zone in made.zones:
        found = {f"{f.grade}: {f.rule} above {f.above}" for f in zone.findings}
        before = set(BEFORE[name]["zones"][zone.zone]["findings"])
        assert found - before == SAID_ANEW.get(name, {}).get(zone.zone, set())
        assert before - found == NO_LONGER_SAID.get(name, {}).get(zone.zone, set())


def test_what_is_mixed_is_what_it_was_but_for_what_is_named(case: tuple[str, Plan, Work]) -> None:
    name, _, worked = case
    now = {b.id: b.mix.volume.value for b in worked.batches}
    before: dict[str, float] = BEFORE[name]["batches"]
    assert now.keys() == before.keys()
    for batch, ml in before.items():
        wanted = MORE[batch](ml) if name == "job-4" and batch in MORE else ml
        assert now[batch] == pytest.approx(wanted, abs=0.6), batch
