"""Noting what was done: one event, once, whoever sends it and however often; and the pots that follow from it."""

import json
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from lumso.core.bench.timers import Timer, running
from lumso.core.days.facts import facts_of
from lumso.core.days.heard import Took, said_already, took
from lumso.core.days.heard import begun_as as begun_in
from lumso.core.days.words import day_of, on_day
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Job
from lumso.core.log.acts import Act, Begun, FromJar, Poured, SawDry, Went
from lumso.core.log.event import Did, Event, notes_of, standing
from lumso.core.log.pot import Fault, PotState, replay
from lumso.core.log.summary import summed_up, words_of
from lumso.core.pour.scale import ScaleReading, believed, not_yet_noted
from lumso.core.work.batch_file import BatchFile
from lumso.core.work.operations import Operation
from lumso.formats import batchfile
from lumso.formats.events import from_json, to_json
from lumso.formats.pots import summary_to_json
from lumso.store import batches, events, jobs
from lumso.store.errors import NotFound, StaleRevision
from lumso.store.events import Around, Decided, NewEvent, PotRow, SightingRow, StoredEvent
from lumso.store.jobs import StoredJob

from .air import air_of
from .beside import Beside, aside
from .context import Context
from .jobs import at_head, read
from .printing import in_use, measured


class EventIn(BaseModel):
    """Something noted. Minutes are since 1970 UTC. `operation` is what it is of; "" for an act on a pot alone."""

    model_config = ConfigDict(extra="forbid")
    job: Annotated[str, Field(max_length=80)]
    operation: Annotated[str, Field(max_length=400)]
    did: Did
    at_min: Annotated[float, Field(ge=0, le=2e8, allow_inf_nan=False)]
    noted_min: Annotated[float, Field(ge=0, le=2e8, allow_inf_nan=False)]
    note: Annotated[str, Field(max_length=500)] = ""
    retracts: Annotated[str, Field(max_length=80)] = ""
    act: Annotated[Act, Field(discriminator="act")] | None = None


def event_of(stored: StoredEvent) -> Event:
    """An event as it is kept."""
    return from_json(stored.document)


def of_jobs(here: Context, *names: str) -> list[Event]:
    """What was noted of jobs, in order."""
    return [event_of(e) for e in events.of_jobs(here.db, list(names))]


def of_pots(here: Context, names: Iterable[str]) -> list[Event]:
    """What was noted of pots, and of those they were carried to and from, in order."""
    return [event_of(e) for e in events.of_pots(here.db, list(names))]


def _fit(noted: EventIn) -> None:
    """Raises InvalidValue for an event that contradicts itself."""
    if (noted.did in {"noted", "corrected"}) != (noted.act is not None):
        raise InvalidValue(
            "An act is noted or corrected; what is begun, done or left out is an operation.", value=noted.did,
            allowed='"noted" or "corrected" with an act, any other without', field="/did",
        )  # fmt: skip
    if noted.did in {"retracted", "corrected"} and not noted.retracts:
        raise InvalidValue("It does not say what is taken back.", value="", allowed="the id of an event",
                           field="/retracts")  # fmt: skip


def _pots_of(act: Act | None) -> tuple[str, str]:
    """The pot and the jar an act is of."""
    if act is None or isinstance(act, Went | SawDry):
        return "", ""
    return act.pot, act.jar if isinstance(act, FromJar) else ""


async def note(event_id: str, noted: EventIn, by: str, scale: ScaleReading | None, here: Context,
               beside: Beside) -> tuple[Event, int]:  # fmt: skip
    """Note an event, or find the one that says the same already; with its revision.

    `by` is the name of the device, `scale` what the scale shows now. Raises InvalidValue for what cannot have been,
    NotFound for a job that is not there, StaleRevision where the id is another's.
    """
    _fit(noted)
    if (known := await aside(events.by_id, here.db, event_id)) is not None:
        before = event_of(known)
        if (before.job, before.operation, before.did, before.note, before.retracts) != (
            noted.job, noted.operation, noted.did, noted.note, noted.retracts,
        ):  # fmt: skip
            raise StaleRevision(0, known.revision)
        return before, known.revision
    act = noted.act
    if isinstance(act, Begun):
        act = await _begun(act, noted, here, beside)
    if isinstance(act, SawDry):
        act = await aside(_as_planned, act, noted, here)
    shown = scale if isinstance(act, Poured) and act.by == "scale" else None
    return await aside(kept, event_id, noted, act, by, here, shown)


async def _begun(act: Begun, noted: EventIn, here: Context, beside: Beside) -> Begun:
    """What a pot is begun as: its batch as it is planned now, frozen under a code."""
    stored = await aside(jobs.get, here.db, noted.job)
    job = await aside(read, stored, here)
    made = await aside(here.work, job)
    batch = next((b for b in made.batches if b.id == act.batch), None)
    if batch is None:
        raise InvalidValue("There is no such batch in this job any more.", value=act.batch,
                           allowed=", ".join(b.id for b in made.batches), field="/act/batch")  # fmt: skip
    kit = in_use(here)
    answer = (await measured([batch.mix], kit, here, beside))[0]
    file = BatchFile("lumso-batch", 4, job.name, kit.name, batch, answer)
    return await aside(begun_as, act, stored, job, file, here)


def begun_as(act: Begun, stored: StoredJob, job: Job, file: BatchFile, here: Context) -> Begun:
    """What a pot is begun as: a batch of a job, frozen under a code."""
    batch = file.batch
    (frozen,) = batches.freeze(here.db, stored.id, stored.revision, [(batch.id, batchfile.to_json(file))])
    run = next((b.run for b in here.work(job).made.brews if b.id == batch.id), None)
    operation = planned_operation(f"{batch.id}:mix", stored.id, job, here)
    amounts = operation.amounts if operation else None
    laid = run.first.laid if run else None
    return replace(
        act, code=frozen.code, name=batch.name, colour=batch.colour, hex=batch.hex, vessel=batch.vessel,
        recipe=batch.recipe, technique=laid.layer.technique if laid else "", target=batch.mix.target,
        zones=tuple(dict.fromkeys(u.zone_name for u in batch.uses))[:60],
        laid_ml=amounts.laid_ml if amounts else 0.0, lost_ml=amounts.lost_ml if amounts else 0.0,
        rate_factor=laid.learned.factor if laid and laid.learned else 1.0,
    )  # fmt: skip


def planned_operation(name: str, job_id: str, job: Job, here: Context) -> Operation | None:
    """An operation of a job as it is planned now; None where none is called so."""
    for block in here.work(job).made.blocks:
        for one in (*block.early, *block.operations):
            if one.id == name:
                return one
    base, _, more = name.rpartition(":")
    if more in {"opened", "closed", "again", "abraded", "put-right"}:
        like = planned_operation(base, job_id, job, here)
        return replace(like, id=name, amounts=None, film_ml=0.0) if like else None
    return None


def _planned(noted: EventIn, here: Context) -> Operation | None:
    """The operation as it is planned now: so it was begun."""
    if noted.did == "retracted" or not noted.operation:
        return None
    try:
        job = at_head(noted.job, here)
    except NotFound:
        return None  # it was deleted; its jars are still there
    return planned_operation(noted.operation, noted.job, job, here)


def _weighed(event: Event, shown: ScaleReading | None, around: Around) -> Event | StoredEvent:
    """A pour by the scale as far as it is not noted yet; or, where all of it is, the pour that said so."""
    act = event.act
    if not isinstance(act, Poured) or shown is None or event.did != "noted":
        return event
    pot = replay(notes_of([event_of(e) for e in around.of_pots]))[0].get(act.pot)
    if pot is None:
        return event
    fresh = not_yet_noted(act.g, pot.g, believed(shown, pot.zero), shown.step_g)
    if fresh > 0:
        return event if fresh == act.g else replace(event, act=replace(act, g=fresh))
    for one in reversed(around.of_pots):
        before = event_of(one).act
        if isinstance(before, Poured) and (before.pot, before.stuff) == (act.pot, act.stuff):
            return one
    return event


def kept(event_id: str, noted: EventIn, act: Act | None, by: str, here: Context,
         shown: ScaleReading | None = None) -> tuple[Event, int]:  # fmt: skip
    """An event as it is kept, or the one that says the same already; with its revision. `shown` is what the scale shows
    where it was poured by that."""
    planned = _planned(noted, here)
    said = Event(event_id, noted.job, noted.operation, noted.did, noted.at_min, noted.note, noted.retracts, planned,
                 by, act)  # fmt: skip
    pot, jar = _pots_of(act)
    if noted.retracts:
        pot, jar = (a or b for a, b in zip((pot, jar), events.pot_of(here.db, noted.retracts), strict=True))

    def decide(around: Around) -> StoredEvent | Decided:
        of_job = [event_of(e) for e in around.of_job]
        event = _weighed(said, shown, around)
        if isinstance(event, StoredEvent):
            return event
        if (same := said_already(event, of_job)) is not None:
            return next(e for e in around.of_job if e.id == same.id)
        rows: Sequence[PotRow] = ()
        if pot or isinstance(act, Went) or said.operation:
            rows = _follow(event, noted.noted_min, around, of_job, here)
        gone = event.retracts if event.did in {"retracted", "corrected"} else ""
        return Decided(to_json(event), rows, _sighting(event, took(event, of_job)), gone)

    new = NewEvent(event_id, noted.job, noted.at_min, noted.noted_min, to_json(said), pot, jar)
    made = events.add(here.db, new, decide)
    return event_of(made), made.revision


def _running(job_id: str, of_job: list[Event], here: Context) -> tuple[Timer, ...]:
    """All that runs of a job, as it was planned: what was seen of it left aside."""
    made = here.work(at_head(job_id, here))
    air, _ = air_of(here.days_chosen()[0], here, here.now_min())
    return running(made.operations, made.constraints, facts_of(of_job, job_id), (), air.room, here.exact_now())


def _as_planned(act: SawDry, noted: EventIn, here: Context) -> SawDry:
    """What was seen, beside what was planned of it: so it can teach."""
    of_job = of_jobs(here, noted.job)
    timer = next((t for t in _running(noted.job, of_job, here) if t.id == act.constraint), None)
    first = next((e.planned for e in standing(of_job) if e.operation == noted.operation and e.planned), None)
    begun = begun_in(first.batch, of_job) if first and first.kind == "lay" else None
    if timer is None or timer.opens_min is None or begun is None or not timer.dries:
        return act
    learned = here.workshop().waits.get(begun.recipe, 1.0)
    after = max(noted.at_min - timer.since_min, 0.0)
    planned = timer.opens_min - timer.since_min
    return replace(act, planned_min=planned, after_min=after, recipe=begun.recipe, factor=learned)


def _sighting(event: Event, said: Took | None) -> SightingRow | None:
    if said is None:
        return None
    return SightingRow(event.id, said.kind, said.of, event.job, event.at_min, said.planned_min, said.took_min, said.dry)


def _follow(event: Event, noted_min: float, around: Around, of_job: Sequence[Event], here: Context) -> list[PotRow]:
    """The pots as they are with a new event. Raises InvalidValue where it, or what came after it, cannot have been."""
    before = [event_of(e) for e in around.of_pots]
    _, had = replay(notes_of(before))
    timed = [(e.noted_min, e.id, event_of(e)) for e in around.of_pots]
    timed.append((noted_min, event.id, event))
    after = [e for _, _, e in sorted(timed, key=lambda t: (t[0], t[1]))]
    pots, faults = replay(notes_of(after))
    _refuse_new(faults, had, event)
    own = [*of_job, event]
    in_job = {e.act.pot for e in own if isinstance(e.act, Begun)}
    wanted = {**pots, **{p: s for p, s in replay(notes_of(own))[0].items() if p in in_job and p not in pots}}
    return list(rows_of(wanted, [*after, *own], here))


def _refuse_new(faults: Sequence[Fault], had: Sequence[Fault], event: Event) -> None:
    known = {(f.event, f.field) for f in had}
    for fault in faults:
        if (fault.event, fault.field) in known:
            continue
        own = fault.event == event.id or fault.event == event.retracts
        says = fault.says if own else f"Something later needs it: {fault.says}"
        raise InvalidValue(says, value=event.id, allowed=fault.allowed, field=fault.field if own else "/act/g")


def rows_of(pots: Mapping[str, PotState], known: Sequence[Event], here: Context) -> Iterable[PotRow]:
    """Pots as they are listed. `known` are events that began them, and of their jobs as far as these are known."""
    job_of = {e.act.pot: e.job for e in known if isinstance(e.act, Begun)}
    of_job: dict[str, list[Event]] = {}
    zone = here.days_chosen()[0].table.zone
    for name, pot in pots.items():
        job = job_of.get(name)
        if job is None:
            continue
        if job not in of_job:
            of_job[job] = of_jobs(here, job)
            ids = {e.id for e in of_job[job]}
            of_job[job] += [e for e in {k.id: k for k in known}.values() if e.job == job and e.id not in ids]
        summary = summed_up(pot, job, _job_name(job, here), of_job[job])
        rate_of = f"{summary.recipe}|{summary.technique}" if summary.rate > 0 else ""
        yield PotRow(
            name, job, summary.job_name, summary.code, pot.begun_min, pot.state, pot.g, rate_of, summary.rate,
            words_of(summary, f"{on_day(pot.begun_min, zone)} {day_of(pot.begun_min, zone)}"), summary_to_json(summary),
        )  # fmt: skip


def _job_name(job: str, here: Context) -> str:
    try:
        return str(json.loads(jobs.get(here.db, job).document)["name"])
    except (NotFound, KeyError, ValueError):
        return "a job that was deleted"
