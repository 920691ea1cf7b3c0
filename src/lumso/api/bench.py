"""The bench: a job one operation at a time, its pots, its timers, the scale; and the same on every device at once."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Annotated, Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.bench.bench import Bench, bench_of
from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.days.facts import Fact, facts_of
from lumso.core.job.job import Job
from lumso.core.log.event import Event, notes_of
from lumso.core.log.jars import JarUse, taken_g, uses_of, wanted_for
from lumso.core.log.pot import PotState, replay
from lumso.core.measure.measures import Spoken, spoken
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.jar import HEADROOM
from lumso.core.pour.pouring import Bounds, PourPlan, lines_of, pour_plan
from lumso.core.pour.scale import Believed, believed
from lumso.core.rescue.agents import agents_for, chosen_in, holds, sets_hard
from lumso.core.rescue.belief import Ladder
from lumso.core.rescue.ladder import LadderRung, by_flow_cup, by_sag, ladder_of
from lumso.core.rescue.setting_right import PotAdvice, PotNow, advise
from lumso.core.work.batch import Batch
from lumso.core.work.work import Work
from lumso.formats import jobfile
from lumso.services.context import Context
from lumso.store import events, jobs, pots
from lumso.store.errors import NotFound

from .air import air_of, exact_now, now_min
from .context import Here
from .live import ScaleOut, scale_out
from .lots import on_shelf_now
from .noting import event_of, frozen_as

router = APIRouter(prefix="/bench", tags=["bench"])


class PotNowOut(BaseModel):
    """A pot: what is in it, what is still to be poured, how it flows, and what to do about how it looks."""

    pot: PotState
    held_g: float
    held_ml: float
    density: float
    """g per ml of the mix; 1 for an empty pot."""
    batch: Batch | None
    plan: PourPlan | None
    target: str
    advice: PotAdvice | None
    """What to do by what was seen last; None where nothing was."""
    ways_said: list[Spoken]
    """What each way of the advice adds, in one's own measures."""
    left_said: list[Spoken]
    """What is left to pour, line by line, in one's own measures."""
    measured: KitAnswer | None
    """How the batch was to be measured with the kit, as it was begun."""
    by_scale: Believed
    """What the scale says is in it."""


class JarHereOut(BaseModel):
    """A jar that a pot of this job could begin from."""

    operation: str
    """The mixing it is for."""
    pot: str
    code: str
    name: str
    colour: str
    ml: float
    take_g: float
    """How much of it to take, at the most."""
    use: JarUse


class BenchOut(BaseModel):
    """A job at the bench, with its pots, jars and scale."""

    bench: Bench
    pots: list[PotNowOut]
    """The pots that are mixed or used now."""
    jars: list[JarHereOut]
    """What is left of other batches, for what is still to be mixed."""
    scale: ScaleOut
    noted: list[str]
    """The events that are counted in."""


@router.get("/jobs/{job_id}")
def get_bench(job_id: str, here: Here, request: Request) -> BenchOut:
    """A job at the bench."""
    stored = jobs.get(here.db, job_id)
    job = jobfile.from_json(stored.document, f"Job {job_id}")
    own = [event_of(e) for e in events.of_jobs(here.db, [job_id])]
    mine, _ = replay(notes_of(own))
    begun = {p for p, s in mine.items() if s.begun}
    known = [event_of(e) for e in events.of_pots(here.db, begun)]
    every, _ = replay(notes_of(known))
    mixed = {p: every[p] for p in begun if p in every}
    made = here.work(job)
    now = exact_now(request)
    air, _ = air_of(here.days_chosen()[0], here, now_min(request))
    bench = bench_of(job_id, made, own, mixed, air.room, now)
    open_pots = [p for p in mixed.values() if p.state in {"pouring", "stirred"}]
    shown = [pot_out(p, job, made, here, request) for p in sorted(open_pots, key=lambda p: p.begun_min)]
    jars = _jars(job_id, job, made, own, here)
    return BenchOut(bench=bench, pots=shown, jars=jars, scale=scale_out(request),
                    noted=[e.id for e in own])  # fmt: skip


@router.get("/pots/{pot_id}")
def get_pot(pot_id: Annotated[str, Field(max_length=80)], here: Here, request: Request) -> PotNowOut:
    """A pot as it is."""
    known = [event_of(e) for e in events.of_pots(here.db, [pot_id])]
    every, _ = replay(notes_of(known))
    pot = pick("pot", {p: s for p, s in every.items() if s.begun}, pot_id)
    job, made = _job_of(known, pot, here)
    return pot_out(pot, job, made, here, request)


def _jars(job_id: str, job: Job, made: Work, own: list[Event], here: Context) -> list[JarHereOut]:
    """Jars that pots of a job could begin from: of the same colour, as they are or with water."""
    done = facts_of(own, job_id)
    open_brews = [b for b in made.made.brews if not _mixed(done.get(f"{b.id}:mix"))]
    found = []
    for stored in pots.jars(here.db) if open_brews else []:
        every, _ = replay(notes_of([event_of(e) for e in events.of_pots(here.db, [stored.id])]))
        pot = every[stored.id]
        for brew in open_brews:
            for use in uses_of(pot, [wanted_for(job_id, job.name, brew)]):
                if use.how == "as the start of it" or pot.begun is None:
                    continue
                found.append(
                    JarHereOut(
                        operation=f"{brew.id}:mix", pot=stored.id, code=pot.begun.code, name=pot.begun.name,
                        colour=pot.begun.colour, ml=pot.ml, take_g=taken_g(pot, use, brew.amounts.mixed_ml), use=use,
                    )
                )  # fmt: skip
    return found


def _mixed(fact: Fact | None) -> bool:
    return fact is not None and fact.did == "done"


def _job_of(known: list[Event], pot: PotState, here: Context) -> tuple[Job | None, Work | None]:
    name = next((e.job for e in known if e.act is not None and e.act == pot.begun), "")
    try:
        job = jobfile.from_json(jobs.get(here.db, name).document, f"Job {name}")
    except NotFound:
        return None, None
    return job, here.work(job)


def pot_out(pot: PotState, job: Job | None, made: Work | None, here: Context, request: Request) -> PotNowOut:
    """A pot with what is computed of it."""
    catalogue = here.known_for(job) if job else here.known()
    file = frozen_as(pot.begun.code, here) if pot.begun else None
    batch = file.batch if file else None
    limits, life = holds(pot.batch, made)
    scale = scale_out(request).reading
    bounds = Bounds(
        catalogue.vessels, pick("vessel", {v.slug: v for v in catalogue.vessels}, here.workshop().vessel),
        _on_shelf(here, catalogue), limits, step_g=scale.step_g if scale else 0.0,
    )  # fmt: skip
    plan = pour_plan(lines_of(batch.mix), pot, bounds) if batch else None
    target = batch.mix.target if batch else ""
    now = exact_now(request)
    sets = None if life is None or pot.sets_from_min is None else pot.sets_from_min + life - now
    advice = None
    if pot.looks and target and batch:
        agents = agents_for(pot.held, lines_of(batch.mix), bounds.on_shelf, catalogue.materials)
        asked = _pot_now(pot, bounds, now, sets if sets_hard(pot.held, catalogue.materials) else None)
        stands = next((ml for name, ml in asked.jars if plan and name == plan.vessel), asked.room_ml)
        asked = replace(asked, stands_ml=stands, chosen=chosen_in(pot.batch, made, lines_of(batch.mix)))
        known = (asked, target, agents, limits, catalogue.materials, catalogue.consistencies)
        advice = here.memo.recall(("set right", pot.pot), known, lambda: advise(
            asked, target, agents, catalogue.materials, limits, Ladder(catalogue.consistencies)))  # fmt: skip
    system = catalogue.system(here.workshop().measures)
    said = [spoken(line.left_ml, system) for line in plan.lines] if plan else []
    ways = [spoken(way.ml, system) for way in advice.ways] if advice else []
    return PotNowOut(pot=pot, held_g=pot.g, held_ml=pot.ml, density=pot.density, batch=batch, plan=plan,
                     target=target, advice=advice, ways_said=ways, left_said=said,
                     measured=file.measured if file else None, by_scale=believed(scale, pot.zero))  # fmt: skip


def _pot_now(pot: PotState, bounds: Bounds, now: float, sets: float | None) -> PotNow:
    wetted = pot.wetted_min if pot.wetted_min is not None else now
    looks = tuple((x.held, x.word, max(x.at_min - x.wetted_min, 0.0)) for x in pot.looks)
    room = bounds.largest.capacity_ml * (1 - HEADROOM)
    rescued = sum(p.rescue for p in pot.pours)
    since = round(max(now - wetted, 0.0) * 4) / 4  # to a quarter of a minute: asked again, it is the same question
    there = sorted(bounds.vessels, key=lambda v: v.capacity_ml)
    jars = tuple((v.name, v.capacity_ml * (1 - HEADROOM)) for v in there if v.capacity_ml <= bounds.largest.capacity_ml)
    sets = None if sets is None else round(sets * 4) / 4
    return PotNow(pot.held, looks, rescued, since, room, sets, jars=jars)


def _on_shelf(here: Context, catalogue: Catalogue) -> Mapping[str, float]:
    """What is on hand of each material now, in g; what nobody counted is not there."""
    found, items = {}, here.on_shelf()
    for slug, left in on_shelf_now(here).items():
        material = catalogue.materials.get(slug)
        if material is not None:
            found[slug] = left * (material.bulk_density if items[slug].unit == "ml" else 1.0)
    return found


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
