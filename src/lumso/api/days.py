"""The days: what was chosen for them, when what is done, what was done, and the air of the room."""

from typing import Annotated, Literal

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

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
from lumso.formats import jobfile
from lumso.formats.events import from_json as event_from_json
from lumso.formats.ical import to_ical
from lumso.formats.reading import UnfitDocument
from lumso.formats.strip_svg import to_svg
from lumso.services.context import Context
from lumso.store import calendar, events, jobs
from lumso.store.errors import NotFound

from .air import air_of, now_min
from .context import Here, IfMatch, Key, read_revision
from .noting import EventIn, note
from .sheets import pdf_of
from .workers import Workers, run

router = APIRouter(tags=["days"])

LONGEST_SEARCH_S = 10.0
OPEN_DAYS = 21
MOST_BEST = 4
MOST_NEWS, NEWS_MIN = 12, 12 * 60
"""How many answers of the search are remembered."""


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

    state: Literal["none", "listening", "gone"]
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


class DaysAsk(BaseModel):
    """What is chosen on the screen, saved or not. With `search` the best days are looked for; without, they come at
    once. `sequence` comes back with the answer."""

    model_config = ConfigDict(extra="forbid")
    sequence: int = 0
    chosen: Chosen
    search: bool = False


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


def _room(chosen: Chosen, here: Context, request: Request, now: float) -> RoomOut:
    air, judged = air_of(chosen, here, now)
    listener = request.app.state.room
    recent = [j for j in judged if j.reading.at_min >= now - 24 * 60]
    ahead = hours_of(air.room, now, now + 48 * 60)
    return RoomOut(
        state=listener.state if listener else "none",
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
        return None if stored.put_away else jobfile.from_json(stored.document, f"Job {job_id}")
    except (NotFound, UnfitDocument):
        return None


def ask_of(chosen: Chosen, here: Context, now: float) -> tuple[Ask, list[str]]:
    """All that days are found from, and the events it counts in. Jobs that are no more are left out."""
    found = []
    noted: dict[str, list[Event]] = {}
    stored_events = events.of_jobs(here.db, [j.job for j in chosen.jobs])
    for stored in stored_events:
        noted.setdefault(stored.job_id, []).append(event_from_json(stored.document))
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
    return ask, [e.id for e in stored_events]


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


@router.get("/days/chosen")
def get_chosen(here: Here, response: Response) -> ChosenOut:
    """What was chosen for the days."""
    chosen, revision = here.days_chosen()
    response.headers["ETag"] = f'"{revision}"'
    known = []
    for one in chosen.jobs:
        job = _job(here, one.job)
        if job is None:
            continue
        zones = [ZoneOut(zone=z.id, name=z.name) for z in job.zones]
        known.append(JobHere(id=one.job, name=job.name, zones=zones))
    return ChosenOut(chosen=chosen, profiles=list(here.catalogue.profiles.values()), jobs=known)


@router.put("/days/chosen")
def put_chosen(chosen: Chosen, here: Here, response: Response, if_match: IfMatch, key: Key) -> Chosen:
    """Choose hours, place and jobs of the days."""
    if chosen.profile:
        pick("profile", here.catalogue.profiles, chosen.profile)
    response.headers["ETag"] = f'"{here.choose_days(checked(chosen), read_revision(if_match), key)}"'
    return chosen


@router.post("/days")
async def get_days(asked: DaysAsk, here: Here, request: Request) -> DaysOut:
    """The days by what is chosen. Keeps nothing. A search that nobody waits for any more is ended."""
    chosen, now = _checked(asked.chosen), now_min(request)
    ask, noted = await run_in_threadpool(ask_of, chosen, here, now)
    if asked.search and ask.jobs:
        solver: Workers = request.app.state.solver
        days = next((found for known, found in here.best if known == ask), None)
        if days is None:
            days = await solver.run(request, best_days, ask)
            if here.best and (found := moved(here.best[0], (ask, days))):
                here.moved = [*((now, says) for says in found), *here.moved][:MOST_NEWS]
            here.best = [(ask, days), *here.best[: MOST_BEST - 1]]
    else:
        days = await run_in_threadpool(lambda: days_of(settle(ask, memo=here.memo)))
    news = list(dict.fromkeys(says for at, says in here.moved if now - at < NEWS_MIN))
    see_to = await run_in_threadpool(_see_to, ask, here)
    room = await run_in_threadpool(_room, chosen, here, request, now)
    strip = _strip(days, chosen)
    return DaysOut(
        sequence=asked.sequence, days=days, strip=strip, room=room, noted=noted, moved=news, see_to=see_to,
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


@router.post("/days/backwards")
async def get_backwards(asked: DaysAsk, here: Here, request: Request) -> Backwards:
    """The last moment to begin so that what was promised is kept, and what would have to give where it cannot be.

    Much is tried for it: beside the server, and no longer than somebody waits.
    """
    ask, _ = await run_in_threadpool(ask_of, _checked(asked.chosen), here, now_min(request))
    return await run(request, backwards, ask)


@router.put("/events/{event_id}")
async def put_event(event_id: Annotated[str, Field(max_length=80)], noted: EventIn, here: Here, request: Request,
                    response: Response, if_match: IfMatch, key: Key) -> Event:  # fmt: skip
    """Note something. It is only ever added: what was noted by mistake is taken back, or corrected, by another.

    Where another device has said the same already, the answer is what it said.
    """
    if read_revision(if_match) != 0:
        raise InvalidValue("An event is never changed.", value=if_match, allowed='"0"', field="If-Match")
    event, revision = await note(event_id, noted, request, here)
    response.headers["ETag"] = f'"{revision}"'
    return event


@router.get("/events")
def get_events(here: Here, job: Annotated[str, Field(max_length=80)]) -> list[Event]:
    """What was noted of a job, in order."""
    return [event_from_json(e.document) for e in events.of_jobs(here.db, [job])]


@router.get("/room")
def get_room(here: Here, request: Request) -> RoomOut:
    """The air of the room, by what was chosen and measured."""
    return _room(here.days_chosen()[0], here, request, now_min(request))


async def _best(here: Context, request: Request) -> tuple[Days, Chosen]:
    """The best days of what was chosen, as they are handed out."""
    chosen, _ = here.days_chosen()
    out = await get_days(DaysAsk(chosen=chosen, search=True), here, request)
    return out.days, chosen


@router.get("/days/calendar.ics", response_class=Response, responses={200: {"content": {"text/calendar": {}}}})
async def get_calendar(here: Here, request: Request) -> Response:
    """The days as a calendar file: what is done, with alarms where windows close. Taken in twice it is there once."""
    days, _ = await _best(here, request)
    goes = entries_of(days)
    numbered = await run_in_threadpool(calendar.numbered, here.db, [e for e, _ in goes])
    text = to_ical(numbered, {e.uid: go for e, go in goes}, days.now_min)
    return _file(text.encode(), "text/calendar; charset=utf-8", "lumso-days.ics")


@router.get("/days/sheet.pdf", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def get_sheet(here: Here, request: Request, paper: Literal["a4", "letter"] = "a4") -> Response:
    """The days on paper: each visit with boxes to tick."""
    days, _ = await _best(here, request)
    workers: Workers = request.app.state.workers
    content = await workers.run(request, pdf_of, "days", "Days", days, paper)
    return _file(content, "application/pdf", "lumso-days.pdf")


@router.get("/days/strip.svg", response_class=Response, responses={200: {"content": {"image/svg+xml": {}}}})
async def get_strip(here: Here, request: Request) -> Response:
    """The strip of days as a drawing."""
    days, chosen = await _best(here, request)
    return _file(to_svg(_strip(days, chosen)).encode(), "image/svg+xml", "lumso-days.svg")


def _file(content: bytes, kind: str, name: str) -> Response:
    return Response(content, media_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'})
