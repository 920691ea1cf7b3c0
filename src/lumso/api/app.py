"""The application: the API under /api, the built interface everywhere else."""

from collections.abc import Callable
from pathlib import Path
from time import time
from typing import Any

from fastapi import FastAPI, HTTPException, Request
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse, JSONResponse
from fastapi.staticfiles import StaticFiles
from starlette.responses import Response
from starlette.routing import BaseRoute, Match
from starlette.types import Scope

from lumso import __version__
from lumso.core.book.catalogue import Catalogue
from lumso.services.context import Context
from lumso.serving.proxy import PassedOn
from lumso.store import devices
from lumso.store.database import Database

from . import entering, errors, jobs
from .description import describe
from .door import Door
from .gate import Entry, Gate
from .rest import Rest, WithRest
from .workers import Workers

REST = (
    ".changes",
    ".starting",
    ".planning",
    ".finish",
    ".forms",
    ".look",
    ".lots",
    ".boards",
    ".photographs",
    ".recordings",
    ".rehearsal",
    ".sheets",
    ".shelf",
    ".workshop",
    ".better",
    ".keeping",
    ".book",
    ".buying",
    ".days",
    ".asking",
    ".bench",
    ".live",
    ".log",
    ".layouts",
)
"""The routers that come after the first answers, in order."""

METHODS = ["DELETE", "GET", "HEAD", "OPTIONS", "PATCH", "POST", "PUT", "TRACE"]
DARKROOM_MB = 280
"""What reading a photograph may take of memory: 40 million points, and what is made of them."""
BESIDE = {"sw.js", "files.json", "icon.svg", "manifest.webmanifest"}
"""What lies beside the page: what opens it while the server is away, and what a device needs to keep it."""
WEB = Path(__file__).parent.parent / "web"


def _answers_all(route: BaseRoute) -> bool:
    """Whether a route is one of those that answer where nothing else does."""
    return "{rest:path}" in getattr(route, "path", "")


def _answer_all_else(app: FastAPI) -> None:
    """Say of a call that there is none such, or what can be done there."""

    @app.api_route("/api/{rest:path}", methods=METHODS, include_in_schema=False)
    def no_such_call(rest: str, request: Request) -> None:
        allowed: set[str] = set()
        for method in METHODS:
            scope = {**request.scope, "method": method}
            if any(route.matches(scope)[0] is Match.FULL for route in app.routes if not _answers_all(route)):
                allowed.add(method)
        if allowed:
            says = f"{request.method} is not what can be done at /api/{rest}."
            raise HTTPException(405, says, {"Allow": ", ".join(sorted(allowed))})
        raise HTTPException(404, f"There is nothing at /api/{rest}.")


class Assets(StaticFiles):
    """Scripts, styles and fonts: their names tell their contents, so a browser keeps them for good."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        """The file, to be kept."""
        response = await super().get_response(path, scope)
        if response.status_code == 200:
            response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response


def create_app(db: Database, catalogue: Catalogue, web: Path = WEB, names: frozenset[str] = frozenset(),
               entry: Entry | None = None, clock: Callable[[], float] = time,
               proxy: frozenset[str] = frozenset()) -> FastAPI:  # fmt: skip
    """Lumso over a database and a catalogue.

    `web` holds the built interface, `names` what this machine is called; `entry` is asked of whoever comes over the
    network: None lets nobody be asked, as for a server that only its own machine reaches. `clock` says what time it is,
    in seconds since 1970 UTC; `proxy` are the addresses of one that Lumso stands behind.
    """
    app = FastAPI(title="Lumso", version=__version__, docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.state.context = Context(db, catalogue, clock)
    app.state.entry = entry
    app.state.workers = Workers()
    app.state.solver = Workers(most=1)
    app.state.darkroom = Workers(most=1, spare_mb=DARKROOM_MB)
    app.state.room = None
    app.state.scale = None
    app.state.keeper = None
    errors.install(app)
    for part in (jobs, entering):
        app.include_router(part.router, prefix="/api", responses=errors.RESPONSES)
    later = Rest(app, list(app.routes), REST)
    _answer_all_else(app)

    app.add_middleware(WithRest, rest=later)
    app.add_middleware(GZipMiddleware, minimum_size=1024, compresslevel=1)
    if entry:
        entry.heed(devices.turned_out(db))
        app.add_middleware(Gate, entry=entry, db=lambda: app.state.context.db)
    app.add_middleware(Door, names=names)
    app.add_middleware(PassedOn, trusted=proxy)
    if (web / "assets").is_dir():
        app.mount("/assets", Assets(directory=web / "assets"))

    @app.get("/{rest:path}", include_in_schema=False, response_model=None)
    def page(rest: str) -> FileResponse | JSONResponse:
        """The interface, for every address of its own."""
        if not (web / "index.html").is_file():
            raise HTTPException(503, "The interface is not built. Run `make ui`.")
        shown = rest if rest in BESIDE and (web / rest).is_file() else "index.html"
        return FileResponse(web / shown, headers={"Cache-Control": "no-cache"})

    def described() -> dict[str, Any]:
        later.load()
        return describe(app)

    app.openapi = described  # type: ignore[method-assign]
    return app
