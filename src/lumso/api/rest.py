"""The parts of the API that are loaded once the first answers are out, or as soon as one of them is asked.

Building what validates and writes some thousand types takes longer than all else at the start. The list of jobs and a
job are answered without most of it: they come first.
"""

import asyncio
import gc
from collections.abc import Iterable, Sequence
from importlib import import_module
from threading import Lock

from fastapi import APIRouter, FastAPI
from fastapi.concurrency import run_in_threadpool
from starlette.routing import BaseRoute, Match
from starlette.types import ASGIApp, Receive, Scope, Send

from .errors import RESPONSES

QUIET_S = 0.5
"""How long after a first answer the rest is begun: what is asked right after it does not wait for that."""


class Rest:
    """Routers that are not there yet. `first` are the routes that are, `places` the modules of the others, in order."""

    def __init__(self, app: FastAPI, first: Sequence[BaseRoute], places: Iterable[str]) -> None:
        self.app, self.first, self.places = app, tuple(first), tuple(places)
        self.there = False
        self._loading = Lock()

    def load(self) -> None:
        """Put them in their place, behind those that came first and before what answers for all else. Once."""
        with self._loading:
            if self.there:
                return
            late = APIRouter()
            for place in self.places:
                late.include_router(import_module(place, __package__).router, prefix="/api", responses=RESPONSES)
            routes = self.app.router.routes
            routes[:] = [
                *self.first,
                *late.routes,
                *routes[len(self.first) :],
            ]  # at once: others are answered meanwhile
            self.there = True
            if gc.get_freeze_count():
                gc.freeze()


class WithRest:
    """Innermost: loads the rest when something of it is asked, or a moment after something else was answered."""

    def __init__(self, app: ASGIApp, rest: Rest) -> None:
        self.app, self.rest = app, rest
        self.soon: asyncio.Task[None] | None = None

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer."""
        rest = self.rest
        if rest.there or scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        path = scope.get("path", "")
        if path.startswith("/api/") and not any(r.matches(scope)[0] is Match.FULL for r in rest.first):
            await run_in_threadpool(rest.load)
        await self.app(scope, receive, send)
        if path.startswith("/api/") and self.soon is None:
            self.soon = asyncio.create_task(self._soon(rest))

    async def _soon(self, rest: Rest) -> None:
        await asyncio.sleep(QUIET_S)
        await run_in_threadpool(rest.load)
