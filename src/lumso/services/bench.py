"""The bench: a job one operation at a time, its pots, the jars they could begin from, and what the scale says."""

from collections.abc import Mapping
from dataclasses import replace

from pydantic import BaseModel

from lumso.core.bench.bench import Bench, bench_of
from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.checks.standing import Standing
from lumso.core.days.facts import Fact, facts_of
from lumso.core.job.job import Job
from lumso.core.log.acts import Tared
from lumso.core.log.event import Event, notes_of
from lumso.core.log.jars import JarUse, taken_g, uses_of, wanted_for
from lumso.core.log.pot import PotState, replay
from lumso.core.measure.measures import Spoken, spoken
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.jar import HEADROOM
from lumso.core.pour.pouring import Bounds, PourPlan, lines_of, pour_plan
from lumso.core.pour.scale import Believed, Connection, ScaleReading, believed
from lumso.core.rescue.agents import agents_for, chosen_in, holds, sets_hard
from lumso.core.rescue.belief import WordLadder
from lumso.core.rescue.setting_right import PotAdvice, PotNow, advise
from lumso.core.work.batch import Batch
from lumso.core.work.work import Work
from lumso.store import pots
from lumso.store.errors import NotFound

from .air import air_of
from .context import Context
from .jobs import at_head
from .lots import on_shelf_now
from .noting import of_jobs, of_pots
from .printing import frozen_as


class ScaleOut(BaseModel):
    """The scale: whether it answers, what it shows, and whether it is a simulated one, which has a panel."""

    state: Connection
    simulated: bool
    reading: ScaleReading | None


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
    standing: Standing


def at_bench(job_id: str, scale: ScaleOut, here: Context) -> BenchOut:
    """A job at the bench. Raises NotFound, UnfitDocument."""
    job = at_head(job_id, here)
    own = of_jobs(here, job_id)
    mine, _ = replay(notes_of(own))
    begun = {p for p, s in mine.items() if s.begun}
    every, _ = replay(notes_of(of_pots(here, begun)))
    mixed = {p: every[p] for p in begun if p in every}
    made = here.work(job)
    air, _ = air_of(here.days_chosen()[0], here, here.now_min())
    bench = bench_of(job_id, made, own, mixed, air.room, here.exact_now())
    open_pots = [p for p in mixed.values() if p.state in {"pouring", "stirred"}]
    shown = [_shown(p, job, made, scale, here) for p in sorted(open_pots, key=lambda p: p.begun_min)]
    jars = _jars(job_id, job, made, own, here)
    return BenchOut(bench=bench, pots=shown, jars=jars, scale=scale, noted=[e.id for e in own],
                    standing=here.plan(job).standing)  # fmt: skip


def pot_now(pot_id: str, scale: ScaleOut, here: Context) -> PotNowOut:
    """A pot as it is. Raises UnknownEntry."""
    known = of_pots(here, [pot_id])
    every, _ = replay(notes_of(known))
    pot = pick("pot", {p: s for p, s in every.items() if s.begun}, pot_id)
    job, made = _job_of(known, pot, here)
    return _shown(pot, job, made, scale, here)


def zeros_of(job_id: str, here: Context) -> dict[str, Tared | None]:
    """The zeros of the pots of a job that are mixed or used now."""
    if not job_id:
        return {}
    every, _ = replay(notes_of(of_jobs(here, job_id)))
    return {p: s.zero for p, s in every.items() if s.state in {"pouring", "stirred"}}


def _jars(job_id: str, job: Job, made: Work, own: list[Event], here: Context) -> list[JarHereOut]:
    """Jars that pots of a job could begin from: of the same colour, as they are or with water."""
    done = facts_of(own, job_id)
    open_brews = [b for b in made.made.brews if not _mixed(done.get(f"{b.id}:mix"))]
    found = []
    for stored in pots.jars(here.db) if open_brews else []:
        every, _ = replay(notes_of(of_pots(here, [stored.id])))
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
        job = at_head(name, here)
    except NotFound:
        return None, None
    return job, here.work(job)


def _shown(pot: PotState, job: Job | None, made: Work | None, scale: ScaleOut, here: Context) -> PotNowOut:
    """A pot with what is computed of it."""
    catalogue = here.known_for(job) if job else here.known()
    file = frozen_as(pot.begun.code, here) if pot.begun else None
    batch = file.batch if file else None
    limits, life = holds(pot.batch, made)
    bounds = Bounds(
        catalogue.vessels, pick("vessel", {v.slug: v for v in catalogue.vessels}, here.workshop().vessel),
        _on_shelf(here, catalogue), limits, step_g=scale.reading.step_g if scale.reading else 0.0,
    )  # fmt: skip
    plan = pour_plan(lines_of(batch.mix), pot, bounds) if batch else None
    target = batch.mix.target if batch else ""
    now = here.exact_now()
    sets = None if life is None or pot.sets_from_min is None else pot.sets_from_min + life - now
    advice = None
    if pot.looks and target and batch:
        agents = agents_for(pot.held, lines_of(batch.mix), bounds.on_shelf, catalogue.materials)
        asked = _pot_now(pot, bounds, now, sets if sets_hard(pot.held, catalogue.materials) else None)
        stands = next((ml for name, ml in asked.jars if plan and name == plan.vessel), asked.room_ml)
        asked = replace(asked, stands_ml=stands, chosen=chosen_in(pot.batch, made, lines_of(batch.mix)))
        known = (asked, target, agents, limits, catalogue.materials, catalogue.consistencies)
        advice = here.memo.recall(("set right", pot.pot), known, lambda: advise(
            asked, target, agents, catalogue.materials, limits, WordLadder(catalogue.consistencies)))  # fmt: skip
    system = catalogue.system(here.workshop().measures)
    said = [spoken(line.left_ml, system) for line in plan.lines] if plan else []
    ways = [spoken(way.ml, system) for way in advice.ways] if advice else []
    return PotNowOut(pot=pot, held_g=pot.g, held_ml=pot.ml, density=pot.density, batch=batch, plan=plan,
                     target=target, advice=advice, ways_said=ways, left_said=said,
                     measured=file.measured if file else None, by_scale=believed(scale.reading, pot.zero))  # fmt: skip


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
