"""The scale at the bench, and what changes there, told to every page as it happens (server-sent events)."""

import asyncio
import json
from collections.abc import AsyncIterator, Mapping
from dataclasses import asdict
from time import monotonic, time
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.log.acts import Tared
from lumso.core.pour.scale import believed
from lumso.services.bench import ScaleOut, zeros_of
from lumso.services.context import Context
from lumso.services.jobs import head_revision

from .context import Here
from .devices import scale_of, scale_out
from .gate import let_in

router = APIRouter(prefix="/bench", tags=["bench"])

LOOK_EVERY_S, JOB_EVERY_S, BEAT_S = 0.1, 0.3, 10.0
"""How often is looked whether anything changed, also for who only follows a job; and how long a stream says nothing."""


class HandIn(BaseModel):
    """What is done to the scale: tared; or, with a simulated one, what a hand would do."""

    model_config = ConfigDict(extra="forbid")
    do: Literal["tare", "put", "pour", "lift", "unit", "restart"]
    g: Annotated[float, Field(ge=-5000, le=5000, allow_inf_nan=False)] = 0.0
    unit: Literal["g", "oz", "lb"] = "g"


class DoneOut(BaseModel):
    """Whether the scale took it."""

    done: bool


@router.get("/scale")
def get_scale(request: Request) -> ScaleOut:
    """The scale as it is."""
    return scale_out(request)


@router.post("/scale")
def ask_scale(asked: HandIn, request: Request) -> DoneOut:
    """Tare the scale, or be the hand at a simulated one."""
    scale = scale_of(request)
    if scale is None or (asked.do != "tare" and not scale.simulated):
        return DoneOut(done=False)
    more = {"put": f" {asked.g:g}", "pour": f" {asked.g:g}", "unit": f" {asked.unit}"}.get(asked.do, "")
    return DoneOut(done=scale.ask(f"{asked.do.upper()}{more}"))


class Watch:
    """What the database is at, looked at for all streams together: whoever finds the last look old looks anew."""

    def __init__(self) -> None:
        self._state: tuple[int, int] | None = None
        self._at, self._looking = 0.0, False

    async def state(self, here: Context) -> tuple[int, int] | None:
        """What the workshop and what was worked on are at, LOOK_EVERY_S old or little more; None before the first
        look."""
        if not self._looking and monotonic() - self._at >= LOOK_EVERY_S:
            self._looking = True
            try:
                self._state = await run_in_threadpool(here.db.state)
                self._at = monotonic()
            finally:
                self._looking = False
        return self._state


def _watch(request: Request) -> Watch:
    found: Watch | None = getattr(request.app.state, "watch", None)
    if found is None:
        found = request.app.state.watch = Watch()
    return found


@router.get("/live", include_in_schema=False)
async def live(request: Request, here: Here, job: Annotated[str, Query(max_length=80)] = "",
               scale: bool = True) -> StreamingResponse:  # fmt: skip
    """What changes, as it does (server-sent events): `changed` with what the log and the workshop are at and the
    revision of the job, `scale` with what it shows, and the server's minute with each."""

    async def told() -> AsyncIterator[str]:
        seen: dict[str, object] = {}
        beat, revision = 0.0, 0
        at: tuple[int, int] | None = None
        zeros: dict[str, Tared | None] = {}
        leaving = getattr(request.app.state, "leaving", lambda: False)
        while not leaving() and not await request.is_disconnected():
            here_now: Context = request.app.state.context
            if not await run_in_threadpool(let_in, here_now.db, request.scope, request.app.state.entry):
                yield _sent("out", {"now_min": here_now.exact_now()})  # turned out: nothing more is told
                return
            state = await _watch(request).state(here_now)
            if state is None:  # another stream looks just now
                await asyncio.sleep(LOOK_EVERY_S)
                continue
            if state != at:
                at, revision = state, await run_in_threadpool(head_revision, job, here_now)
                zeros = await run_in_threadpool(zeros_of, job, here_now) if scale else {}
            now: dict[str, object] = {"changed": {"workshop": state[0], "touched": state[1], "revision": revision}}
            if scale:
                shown = scale_out(request)
                pots = {p: asdict(believed(shown.reading, z)) for p, z in zeros.items()}
                now["scale"] = {**shown.model_dump(mode="json"), "pots": pots}
            for name, value in now.items():
                if seen.get(name) != value:
                    seen[name], beat = value, time()
                    yield _sent(name, {"now_min": here_now.exact_now(), **value})  # type: ignore[dict-item]
            if time() - beat > BEAT_S:
                beat = time()
                yield _sent("beat", {"now_min": here_now.exact_now()})
            await asyncio.sleep(LOOK_EVERY_S if scale else JOB_EVERY_S)

    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return StreamingResponse(told(), media_type="text/event-stream", headers=headers)


def _sent(name: str, value: Mapping[str, object]) -> str:
    return f"event: {name}\ndata: {json.dumps(value)}\n\n"
