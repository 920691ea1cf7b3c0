"""What every router needs: the database, the catalogue and the workshop as it is now."""

from collections.abc import Iterable, Mapping
from contextlib import suppress
from typing import Annotated, Any, Literal

from fastapi import Depends, Request
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room, steady
from lumso.core.memory import Memo
from lumso.core.plan.plan import Plan, plan_of
from lumso.core.work.work import Work, work
from lumso.core.workshop.better import Better
from lumso.core.workshop.known import book_of, known_to
from lumso.core.workshop.workshop import Workshop
from lumso.formats.reading import UnfitDocument, read_json
from lumso.formats.workshop import DOCUMENT
from lumso.store import entries, settings
from lumso.store.database import Database, now

BETTER: TypeAdapter[tuple[Better, ...]] = TypeAdapter(tuple[Better, ...])


class Settings(BaseModel):
    """What the user has chosen for the whole workshop."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)
    measures: str = "metric"
    kit: str = "metric-spoons"
    vessel: str = "paint-kettle"
    paces: dict[str, Annotated[float, Field(gt=0, le=10, allow_inf_nan=False)]] = {}
    temperature_c: Annotated[float, Field(ge=-10, le=50, allow_inf_nan=False)] = 20.0
    humidity: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] = 0.5


SETTING: Mapping[str, TypeAdapter[Any]] = {"workshop": TypeAdapter(Settings), "better": BETTER}
"""What is kept once for the whole workshop."""


class Unread(BaseModel):
    """A document of the workshop that cannot be read: what is wrong with it, and its text as it is kept."""

    kind: entries.Kind | Literal["setting"]
    slug: str
    says: str
    document: str


class Context:
    """One running Lumso."""

    def __init__(self, db: Database, catalogue: Catalogue) -> None:
        self.db, self.catalogue = db, catalogue
        self.memo = Memo()
        self._read: tuple[int, Workshop, tuple[Unread, ...]] | None = None

    def settings(self) -> Settings:
        """What was chosen, or what everybody starts with."""
        return self._setting("workshop") or Settings()

    def choose(self, chosen: Settings) -> None:
        """Keep what was chosen. Raises UnknownEntry for measures or a kit that are not there."""
        pick("measure system", self.catalogue.systems, chosen.measures)
        pick("kit", self.known().kits, chosen.kit)
        pick("vessel", {v.slug: v for v in self.catalogue.vessels}, chosen.vessel)
        self._choose("workshop", chosen.model_dump_json())

    def better(self) -> tuple[Better, ...]:
        """What is known better of entries of the book."""
        return self._setting("better") or ()

    def keep_better(self, values: Iterable[Better]) -> None:
        """Keep what is known better, in place of what was."""
        self._choose("better", BETTER.dump_json(tuple(values)).decode())

    def _setting(self, key: str) -> Any:
        """A setting as it was kept; None where it never was, or cannot be read."""
        document = settings.get(self.db, key)
        with suppress(UnfitDocument):
            return read_json(SETTING[key], document, key) if document else None
        return None

    def _choose(self, key: str, document: str) -> None:
        """Keep a setting. One that cannot be read is set aside, not written over."""
        before = settings.get(self.db, key)
        if before and self._setting(key) is None:
            settings.put(self.db, f"{key}, set aside {now()}", before)
        settings.put(self.db, key, document)

    def workshop(self) -> Workshop:
        """The user's workshop, read again when anybody has written since. What cannot be read takes nothing with it."""
        return self._held()[0]

    def unread(self) -> tuple[Unread, ...]:
        """What is kept in the workshop and cannot be read."""
        return self._held()[1]

    def _held(self) -> tuple[Workshop, tuple[Unread, ...]]:
        version = self.db.version()
        if self._read is None or self._read[0] != version:
            held: dict[str, list[Any]] = {"kit": [], "recipe": [], "shelf": []}
            unread = []
            for (kind, slug), document in entries.every(self.db).items():
                try:
                    held[kind].append(read_json(DOCUMENT[kind], document, f"The saved {kind} {slug}"))
                except UnfitDocument as error:
                    unread.append(Unread(kind=kind, slug=slug, says=str(error), document=document))
            for key, kept in SETTING.items():
                if text := settings.get(self.db, key):
                    try:
                        read_json(kept, text, f"The saved setting {key}")
                    except UnfitDocument as error:
                        unread.append(Unread(kind="setting", slug=key, says=str(error), document=text))
            chosen = self.settings()
            kits = {k.slug for k in held["kit"]} | set(self.catalogue.kits)
            workshop = Workshop(
                measures=chosen.measures,
                kit=chosen.kit if chosen.kit in kits else Settings().kit,
                vessel=chosen.vessel,
                paces=dict(chosen.paces),
                kits=tuple(held["kit"]),
                shelf=tuple(held["shelf"]),
                recipes=tuple(held["recipe"]),
                better=self.better(),
            )
            self._read = (version, workshop, tuple(unread))
        return self._read[1:]

    def known(self) -> Catalogue:
        """The catalogue with the workshop's own on top."""
        return known_to(self.workshop(), self.catalogue)

    def book(self) -> Catalogue:
        """The catalogue with the workshop's own entries, and none of the values it knows better: what jobs carry."""
        return book_of(self.workshop(), self.catalogue)

    def work(self, job: Job) -> Work:
        """A job worked out in this workshop."""
        return work(job, self.workshop(), self.catalogue, self.room(), self.memo)

    def plan(self, job: Job) -> Plan:
        """The plan of a job in this workshop."""
        return plan_of(self.work(job), self.workshop(), self.room(), self.memo)

    def room(self) -> Room:
        """The room as it was last said to be."""
        chosen = self.settings()
        return steady(chosen.temperature_c, chosen.humidity)

    def known_for(self, job: Job) -> Catalogue:
        """The catalogue with the job's own entries, and the workshop's on top."""
        return known_to(self.workshop(), self.catalogue, job.entries)


def _context(request: Request) -> Context:
    context = request.app.state.context
    assert isinstance(context, Context)
    return context


Here = Annotated[Context, Depends(_context)]
