"""The days: what was chosen for them, when what is done, and the air of the room."""

from pydantic import BaseModel

from lumso.core.book.catalogue import pick
from lumso.core.book.profiles import Profile
from lumso.core.days.air import Judged, Reading, hours_of, now_from
from lumso.core.days.air_drawing import AirDrawing, air_drawing
from lumso.core.days.backwards import Backwards, backwards
from lumso.core.days.chosen import Chosen, checked, on_wall
from lumso.core.days.days import Days
from lumso.core.days.entries import entries_of
from lumso.core.days.facts import facts_of
from lumso.core.days.hours import sessions
from lumso.core.days.moved import moved
from lumso.core.days.settle import Ask, JobAsk, settle
from lumso.core.days.strip import Strip, strip_of
from lumso.core.days.view import days_of
from lumso.core.days.words import day_of, span
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Spell
from lumso.core.log.event import Event
from lumso.core.pour.scale import Connection
from lumso.formats.ical import to_ical
from lumso.formats.reading import UnfitDocument
from lumso.formats.strip_svg import to_svg
from lumso.store import calendar, jobs
from lumso.store.errors import NotFound

from .air import air_of
from .beside import Beside, aside
from .context import Context
from .jobs import read
from .noting import of_jobs
from .printing import Paper, pdf_of

LONGEST_SEARCH_S = 10.0
OPEN_DAYS = 21
MOST_BEST = 4
"""How many answers of the search are remembered."""
MOST_NEWS, NEWS_MIN = 12, 12 * 60
"""How much of what moved is told, and for how long."""


class ZoneOut(BaseModel):
    """A zone of a job, as it may lie flat to dry."""

    zone: str
    name: str


class JobHere(BaseModel):
    """A job that may be put into the days."""

    id: str
    name: str
    zones: list[ZoneOut]


class RoomOut(BaseModel):
    """The air: as it is, as it was, as it may become. `state` is of the thermo-hygrometer."""

    state: Connection
    now: Reading | None
    """As it is now; None where nothing is believed: then the usual day counts."""
    readings: list[Judged]
    ahead: list[Spell]
    says: str
    drawing: AirDrawing


class ChosenOut(BaseModel):
    """What was chosen, and what there is to choose from."""

    chosen: Chosen
    profiles: list[Profile]
    jobs: list[JobHere]
    """The jobs that are in the days."""


class SeeTo(BaseModel):
    """What is to be seen to on a job before it is begun: an open question, what will fail, what cannot be used."""

    job: str
    name: str
    says: str
    detail: str


class OpenOut(BaseModel):
    """A stretch of open hours, to pin something to."""

    from_min: float
    until_min: float
    says: str


class DaysOut(BaseModel):
    """The days, their strip, and the air."""

    sequence: int
    days: Days
    strip: Strip
    room: RoomOut
    noted: list[str]
    """The events that were counted in."""
    see_to: list[SeeTo]
    open_hours: list[OpenOut]
    """The stretches of open hours over the next weeks."""
    moved: list[str]
    """What moved to another day over the last hours, and why."""


def room_now(chosen: Chosen, state: Connection, here: Context, now: float) -> RoomOut:
    """The air of the room, by what was chosen and measured; `state` is of the sensor."""
    air, judged = air_of(chosen, here, now)
    recent = [j for j in judged if j.reading.at_min >= now - 24 * 60]
    ahead = hours_of(air.room, now, now + 48 * 60)
    return RoomOut(
        state=state,
        now=now_from(judged, now),
        readings=recent[-500:],
        ahead=list(ahead),
        says=air.says,
        drawing=air_drawing(judged, ahead, now, chosen.table.zone),
    )


def _job(here: Context, job_id: str) -> Job | None:
    """A job that may be put into days; None where it is no more, is put away, or cannot be read."""
    try:
        stored = jobs.get(here.db, job_id)
        return None if stored.put_away else read(stored, here)
    except (NotFound, UnfitDocument):
        return None


def ask_of(chosen: Chosen, here: Context, now: float) -> tuple[Ask, list[str]]:
    """All that days are found from, and the events it counts in. Jobs that are no more are left out."""
    found = []
    noted: dict[str, list[Event]] = {}
    every = of_jobs(here, *(j.job for j in chosen.jobs))
    for event in every:
        noted.setdefault(event.job, []).append(event)
    for n, one in enumerate(chosen.jobs):
        job = _job(here, one.job)
        if job is None:
            continue
        due = on_wall(one.due, chosen.table.zone, f"/chosen/jobs/{n}/due")
        begins = on_wall(one.not_before, chosen.table.zone, f"/chosen/jobs/{n}/not_before")
        facts = facts_of(noted.get(one.job, ()), one.job)
        found.append(JobAsk(one.job, job, due, one.due_for, one.priority, begins or 0.0, one.flat, one.pins, facts))
    air, _ = air_of(chosen, here, now)
    ask = Ask(tuple(found), here.workshop(), here.catalogue, here.room(), air.room, chosen.table, now)
    return ask, [e.id for e in every]


def _checked(chosen: Chosen) -> Chosen:
    try:
        return checked(chosen)
    except InvalidValue as error:
        raise InvalidValue(error.says, value=error.value, allowed=error.allowed,
                           field=f"/chosen/{error.field}") from None  # fmt: skip


def _strip(days: Days, chosen: Chosen) -> Strip:
    last = max((o.ends_min for o in days.operations), default=days.now_min)
    ahead = int((last - days.now_min) // (24 * 60)) + 2
    return strip_of(days, sessions(chosen.table, days.now_min, ahead))


def chosen_now(here: Context) -> tuple[ChosenOut, int]:
    """What was chosen for the days, what there is to choose from, and the revision of it."""
    chosen, revision = here.days_chosen()
    known = []
    for one in chosen.jobs:
        job = _job(here, one.job)
        if job is None:
            continue
        zones = [ZoneOut(zone=z.id, name=z.name) for z in job.zones]
        known.append(JobHere(id=one.job, name=job.name, zones=zones))
    return ChosenOut(chosen=chosen, profiles=list(here.catalogue.profiles.values()), jobs=known), revision


def choose(chosen: Chosen, read_at: int, key: str, here: Context) -> int:
    """Choose hours, place and jobs of the days; the revision of it. Raises UnknownEntry, InvalidValue,
    StaleRevision."""
    if chosen.profile:
        pick("profile", here.catalogue.profiles, chosen.profile)
    return here.choose_days(checked(chosen), read_at, key)


async def days_by(chosen: Chosen, sequence: int, solver: Beside | None, state: Connection, here: Context) -> DaysOut:
    """The days by what is chosen: the best there are, looked for by `solver`, or for None those found at once.

    Keeps nothing but the answer of the search, and what it moved. `state` is of the sensor of the room.
    """
    chosen, now = _checked(chosen), here.now_min()
    ask, noted = await aside(ask_of, chosen, here, now)
    if solver is not None and ask.jobs:
        days = next((found for known, found in here.best if known == ask), None)
        if days is None:
            days = await solver(best_days, ask)
            if here.best and (found := moved(here.best[0], (ask, days))):
                here.moved = [*((now, says) for says in found), *here.moved][:MOST_NEWS]
            here.best = [(ask, days), *here.best[: MOST_BEST - 1]]
    else:
        days = await aside(lambda: days_of(settle(ask, memo=here.memo)))
    news = list(dict.fromkeys(says for at, says in here.moved if now - at < NEWS_MIN))
    see_to = await aside(_see_to, ask, here)
    room = await aside(room_now, chosen, state, here, now)
    return DaysOut(
        sequence=sequence, days=days, strip=_strip(days, chosen), room=room, noted=noted, moved=news, see_to=see_to,
        open_hours=_open(chosen, now)
    )  # fmt: skip


def _open(chosen: Chosen, now: float) -> list[OpenOut]:
    zone = chosen.table.zone
    return [
        OpenOut(
            from_min=s.begins_min, until_min=s.ends_min,
            says=f"{day_of(s.begins_min, zone)}, {span(s.begins_min, s.ends_min, zone)}",
        )
        for s in sessions(chosen.table, now, OPEN_DAYS)
    ]  # fmt: skip


def _see_to(ask: Ask, here: Context) -> list[SeeTo]:
    """What stands in the way of jobs, by their plans."""
    plans = [(one, here.plan(one.job).next) for one in ask.jobs]
    return [
        SeeTo(job=one.key, name=one.job.name, says=what.says, detail=what.detail)
        for one, what in plans
        if what.side == "finish"
    ]


def best_days(ask: Ask) -> Days:
    """The best days that are found while somebody waits."""
    from lumso.core.solver.solve import Limits
    from lumso.core.solver.solve import best_days as search  # the engine takes a while to load

    return search(ask, Limits(seconds=LONGEST_SEARCH_S))


async def begin_by(chosen: Chosen, here: Context, beside: Beside) -> Backwards:
    """The last moment to begin so that what was promised is kept, and what would have to give where it cannot be.

    Much is tried for it: beside the server, and no longer than somebody waits.
    """
    ask, _ = await aside(ask_of, _checked(chosen), here, here.now_min())
    return await beside(backwards, ask)


async def calendar_file(solver: Beside, here: Context) -> str:
    """The best days as a calendar file: what is done, with alarms where windows close. Taken in twice it is there
    once."""
    days, _ = await _best(solver, here)
    goes = entries_of(days)
    numbered = await aside(calendar.numbered, here.db, [e for e, _ in goes])
    return to_ical(numbered, {e.uid: go for e, go in goes}, days.now_min)


async def print_days(paper: Paper, solver: Beside, here: Context, beside: Beside) -> bytes:
    """The best days on paper: each visit with boxes to tick."""
    days, _ = await _best(solver, here)
    return await beside(pdf_of, "days", "Days", days, paper)


async def strip_file(solver: Beside, here: Context) -> str:
    """The strip of the best days as an SVG drawing."""
    days, chosen = await _best(solver, here)
    return to_svg(_strip(days, chosen))


async def _best(solver: Beside, here: Context) -> tuple[Days, Chosen]:
    """The best days of what was chosen, as they are handed out."""
    chosen, _ = here.days_chosen()
    return (await days_by(chosen, 0, solver, "none", here)).days, chosen
