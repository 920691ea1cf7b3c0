"""Each caution of the trade: its text, a job that shows it at its step, and a near one that does not."""

from dataclasses import dataclass, replace

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Answered, Job, Place, Touch, Use
from lumso.core.layers import cautions
from lumso.core.layers.conditions import steady
from lumso.core.work.operations import Kind
from lumso.core.work.steps import steps_of
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from tests.core.checks.stacks import layer
from tests.core.test_stack_plan import with_stack

C = shipped()


@dataclass(frozen=True)
class Shown:
    """A caution, the kind of step it must stand at, the layers and the facts that call for it, and those that do not.

    `ground`, `prep`, `place` and `use` are of both; `fact` is what the other job has otherwise.
    """

    words: str
    at: Kind
    layers: tuple[object, ...]
    without: tuple[object, ...] | None = None
    ground: str = "raw-beech"
    other_ground: str = ""
    prep: tuple[str, ...] = ()
    place: tuple[Place, ...] = ()
    use: tuple[Touch, ...] = ()
    lead: str = "never coated"
    asbestos: str = "never coated"


PAINT = layer("paint-plain")
BACK = layer("paint-plain", sand=(60, "reveal"))
TABLE: dict[str, Shown] = {
    "old paint, before sanding": Shown(
        cautions.OLD_DUST, "prepare", (PAINT,), ground="old-matt", prep=("scuffed",), lead="not tested"
    ),
    "old paint, before scraping": Shown(
        cautions.OLD_DUST, "prepare", (PAINT,), ground="old-matt", prep=("loose-scraped",), lead="test planned"
    ),
    "old paint, sanded back to": Shown(
        cautions.OLD_DUST, "sand", (BACK,), (PAINT,), ground="old-matt", lead="not tested"
    ),
    "lead found": Shown(cautions.LEAD_FOUND, "sand", (BACK,), ground="old-matt", lead="found"),
    "old texture": Shown(
        cautions.ASBESTOS,
        "prepare",
        (PAINT,),
        ground="old-painted-plaster",
        prep=("sanded-150",),
        lead="none found",
        asbestos="not tested",
    ),
    "powder tipped and stirred": Shown("mask", "mix", (layer("salt-wash"),), (PAINT,)),
    "sanding": Shown(cautions.DUST, "sand", (BACK,), (PAINT,)),
    "silica": Shown(cautions.SILICA, "sand", (layer("sand-paint", sand=(120, "level")),), (BACK,)),
    "caustic": Shown("caustic", "mix", (layer("milk-paint"),), (PAINT,)),
    "caustic dust": Shown(cautions.CAUSTIC, "sand", (layer("milk-paint", sand=(120, "bite")),), (BACK,)),
    "plaster heats and blocks drains": Shown("drain", "mix", (layer("mineral-paint-plaster"),), (PAINT,)),
    "heat gun": Shown(cautions.FORCED, "lay", (layer("paint-plain", dries_by="heat gun"),), (PAINT,)),
    "oily rags": Shown(cautions.RAGS, "lay", (layer("oil-wax-plain"),), (PAINT,)),
    "solvent vapour": Shown(cautions.VAPOUR, "lay", (layer("dewaxed-shellac-plain"),), (PAINT,)),
    "no flame": Shown(
        cautions.FLAME, "lay", (layer("clear-wax-plain"),), (PAINT,), place=("candles or a fire near it",)
    ),
    "spirit near a flame": Shown(
        cautions.FLAME,
        "prepare",
        (PAINT,),
        prep=("wax-stripped",),
        ground="waxed",
        lead="none found",
        place=("candles or a fire near it",),
    ),
    "rotating work": Shown(cautions.ROTATING, "lay", (PAINT,), place=("turned on a lathe",)),
    "food": Shown(cautions.FOOD, "cure", (PAINT,), use=("food",)),
    "kitchen tools": Shown(cautions.KITCHEN, "mix", (PAINT,), place=("kitchen tools in use",)),
    "children's things": Shown(cautions.CHILDREN, "cure", (PAINT,), use=("children",)),
    "children and pregnant people": Shown(
        cautions.FAMILY, "mix", (layer("milk-paint"),), (PAINT,), place=("someone pregnant in the house",)
    ),
    "candles, hearths, radiators": Shown(cautions.HEARTH, "cure", (PAINT,), use=("heat",)),
    "floors": Shown(cautions.FLOOR, "cure", (PAINT,), use=("feet",)),
    "outdoors": Shown(cautions.OUTDOORS, "cure", (PAINT,), place=("outdoors",)),
    "public rooms": Shown(cautions.PUBLIC, "cure", (PAINT,), place=("public room",)),
    "ladders": Shown(cautions.LADDER, "lay", (PAINT,), place=("reached by ladder",)),
    "tipping furniture": Shown("two people", "prepare", (PAINT,), prep=("hardware-off",)),
    "waste": Shown("down the drain", "clean", (PAINT,), (layer("clear-wax-plain"),)),
    "frost": Shown(cautions.FROST, "mix", (PAINT,), (layer("clear-wax-plain"),), place=("may freeze",)),
    "preservatives": Shown("sensitise skin", "mix", (layer("water-wax-plain"),), (PAINT,)),
    "not yet cured": Shown(cautions.CURED, "cure", (PAINT,), ()),
}


def job_of(rack: Job, shown: Shown, calm: bool) -> Job:
    """The job that calls for the caution; or, calm, the one that does not: the facts that ask for it are gone."""
    laid = shown.without if calm and shown.without is not None else shown.layers
    made = with_stack(rack, *laid)
    safe = calm and shown.without is None
    answers = ("none found", "none found") if safe else (shown.lead, shown.asbestos)
    use = Use(() if safe else shown.use, Answered(answers[0]), Answered(answers[1]), () if safe else shown.place)  # type: ignore[arg-type]
    asked = bool(shown.use or shown.place) or shown.lead != "never coated" or shown.asbestos != "never coated"
    prep = () if safe and not asked else shown.prep
    zones = tuple(replace(z, ground=shown.ground, prep=prep) for z in made.zones)
    return replace(made, zones=zones, use=use)


def texts(job: Job, kind: Kind) -> list[str]:
    operations = work(job, Workshop(), C, steady()).operations
    return [t for o in operations if o.kind == kind for t in (*o.take_care, *o.remember)]


@pytest.mark.parametrize("name", sorted(TABLE))
def test_it_stands_at_its_step_and_not_where_it_does_not_matter(rack: Job, name: str) -> None:
    shown = TABLE[name]
    wanted = (shown.words, cautions.in_short(shown.words))
    told = texts(job_of(rack, shown, calm=False), shown.at)
    assert any(w in text for text in told for w in wanted), told
    calm = texts(job_of(rack, shown, calm=True), shown.at)
    assert not any(w in text for text in calm for w in wanted), calm


@pytest.mark.parametrize("name", sorted(TABLE))
def test_the_steps_to_read_show_it_in_full_where_it_first_matters(rack: Job, name: str) -> None:
    shown = TABLE[name]
    made = steps_of(work(job_of(rack, shown, calm=False), Workshop(), C, steady()), steady())
    assert any(shown.words in text for s in made.steps for text in s.operation.take_care)
