"""The days: what was chosen for them, when what is done, what was done, and the air of the room."""

from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.days.backwards import Backwards
from lumso.core.days.chosen import Chosen
from lumso.core.errors import InvalidValue
from lumso.core.log.event import Event
from lumso.services import days, noting
from lumso.services.beside import Beside
from lumso.services.days import ChosenOut, DaysOut, RoomOut
from lumso.services.noting import EventIn

from .context import Here, IfMatch, Key, read_revision
from .devices import scale_out, sensor_state
from .gate import device_of
from .replies import PDF, file_reply
from .workers import BesideIt, beside

router = APIRouter(tags=["days"])


def _solver(request: Request) -> Beside:
    return beside(request.app.state.solver, request)


Solver = Annotated[Beside, Depends(_solver)]


class DaysAsk(BaseModel):
    """What is chosen on the screen, saved or not. With `search` the best days are looked for; without, they come at
    once. `sequence` comes back with the answer."""

    model_config = ConfigDict(extra="forbid")
    sequence: int = 0
    chosen: Chosen
    search: bool = False


@router.get("/days/chosen")
def get_chosen(here: Here, response: Response) -> ChosenOut:
    """What was chosen for the days."""
    made, revision = days.chosen_now(here)
    response.headers["ETag"] = f'"{revision}"'
    return made


@router.put("/days/chosen")
def put_chosen(chosen: Chosen, here: Here, response: Response, if_match: IfMatch, key: Key) -> Chosen:
    """Choose hours, place and jobs of the days."""
    response.headers["ETag"] = f'"{days.choose(chosen, read_revision(if_match), key, here)}"'
    return chosen


@router.post("/days")
async def get_days(asked: DaysAsk, here: Here, request: Request, solver: Solver) -> DaysOut:
    """The days by what is chosen. Keeps nothing. A search that nobody waits for any more is ended."""
    by = solver if asked.search else None
    return await days.days_by(asked.chosen, asked.sequence, by, sensor_state(request), here)


@router.post("/days/backwards")
async def get_backwards(asked: DaysAsk, here: Here, beside_it: BesideIt) -> Backwards:
    """The last moment to begin so that what was promised is kept, and what would have to give where it cannot be."""
    return await days.begin_by(asked.chosen, here, beside_it)


@router.put("/events/{event_id}")
async def put_event(event_id: Annotated[str, Field(max_length=80)], noted: EventIn, here: Here, request: Request,
                    response: Response, if_match: IfMatch, key: Key, beside_it: BesideIt) -> Event:  # fmt: skip
    """Note something. It is only ever added: what was noted by mistake is taken back, or corrected, by another.

    Where another device has said the same already, the answer is what it said.
    """
    if read_revision(if_match) != 0:
        raise InvalidValue("An event is never changed.", value=if_match, allowed='"0"', field="If-Match")
    device = await run_in_threadpool(device_of, here.db, request.scope)
    by = device.name if device else ""
    event, revision = await noting.note(event_id, noted, by, scale_out(request).reading, here, beside_it)
    response.headers["ETag"] = f'"{revision}"'
    return event


@router.get("/events")
def get_events(here: Here, job: Annotated[str, Field(max_length=80)]) -> list[Event]:
    """What was noted of a job, in order."""
    return noting.of_jobs(here, job)


@router.get("/room")
def get_room(here: Here, request: Request) -> RoomOut:
    """The air of the room, by what was chosen and measured."""
    return days.room_now(here.days_chosen()[0], sensor_state(request), here, here.now_min())


@router.get("/days/calendar.ics", response_class=Response, responses={200: {"content": {"text/calendar": {}}}})
async def get_calendar(here: Here, solver: Solver) -> Response:
    """The days as a calendar file: what is done, with alarms where windows close. Taken in twice it is there once."""
    return file_reply(await days.calendar_file(solver, here), "text/calendar; charset=utf-8", "lumso-days.ics")


@router.get("/days/sheet.pdf", response_class=Response, responses=PDF)
async def get_sheet(here: Here, solver: Solver, beside_it: BesideIt,
                    paper: Literal["a4", "letter"] = "a4") -> Response:  # fmt: skip
    """The days on paper: each visit with boxes to tick."""
    return file_reply(await days.print_days(paper, solver, here, beside_it), "application/pdf", "lumso-days.pdf")


@router.get("/days/strip.svg", response_class=Response, responses={200: {"content": {"image/svg+xml": {}}}})
async def get_strip(here: Here, solver: Solver) -> Response:
    """The strip of days as a drawing."""
    return file_reply(await days.strip_file(solver, here), "image/svg+xml", "lumso-days.svg")
