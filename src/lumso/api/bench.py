"""The bench: a job one operation at a time, its pots, its timers; and short tests of a mix."""

from typing import Annotated, Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.rescue.ladder import LadderRung, by_flow_cup, by_sag, ladder_of
from lumso.services import bench
from lumso.services.bench import BenchOut, PotNowOut

from .context import Here
from .devices import scale_out

router = APIRouter(prefix="/bench", tags=["bench"])


@router.get("/jobs/{job_id}")
def get_bench(job_id: str, here: Here, request: Request) -> BenchOut:
    """A job at the bench."""
    return bench.at_bench(job_id, scale_out(request), here)


@router.get("/pots/{pot_id}")
def get_pot(pot_id: Annotated[str, Field(max_length=80)], here: Here, request: Request) -> PotNowOut:
    """A pot as it is."""
    return bench.pot_now(pot_id, scale_out(request), here)


@router.get("/ladder")
def get_ladder(here: Here) -> list[LadderRung]:
    """The words mixes are judged by, with what they show."""
    return list(ladder_of(here.known().consistencies))


class TestIn(BaseModel):
    """A short test: seconds out of a 4 mm flow cup, or the thickest streak in mm that stays on an upright scrap."""

    model_config = ConfigDict(extra="forbid")
    test: Literal["flow cup", "sag"]
    value: Annotated[float, Field(allow_inf_nan=False)]
    density: Annotated[float, Field(gt=0.2, lt=8, allow_inf_nan=False)] = 1.3


class TestOut(BaseModel):
    """The word a short test leads to."""

    word: str
    name: str


@router.post("/test")
def get_test(asked: TestIn, here: Here) -> TestOut:
    """The word a short test leads to. Keeps nothing."""
    told = by_flow_cup if asked.test == "flow cup" else by_sag
    word = told(asked.value, asked.density, here.known().consistencies)
    return TestOut(word=word.slug, name=word.name)
