"""What every service is given: the database, the catalogue, what is remembered, and the workshop as it is now."""

from collections.abc import Callable, Iterable, Mapping
from contextlib import suppress
from dataclasses import dataclass
from math import exp, log
from threading import Lock
from time import time
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.kit import Kit
from lumso.core.buying.lots import Lot
from lumso.core.buying.packs import Basket, Shop
from lumso.core.buying.purse import Purse
from lumso.core.days.chosen import Chosen
from lumso.core.days.days import Days
from lumso.core.days.settle import Ask
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room, steady
from lumso.core.learn.evidence import Ratio, lessons
from lumso.core.learn.rates import LearnedRate, clipped
from lumso.core.learn.waits import Factor, Sighting, learned_pace, learned_wait
from lumso.core.memory import Memo
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.needs import Needs
from lumso.core.plan.plan import Plan, plan_of
from lumso.core.work.work import Work, work
from lumso.core.workshop.better import Better
from lumso.core.workshop.known import book_of, known_to
from lumso.core.workshop.shelf import ShelfItem
from lumso.core.workshop.workshop import Workshop
from lumso.formats.reading import UnfitDocument, read_json
from lumso.formats.workshop import DOCUMENT
from lumso.store import entries, events, pots, settings
from lumso.store.database import Database

from .plans import Plans

PICTURES = 80
"""How many places pictures are remembered for: some 40 MB."""

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


class Learning(BaseModel):
    """What of the log is not to count (by "recipe|technique"), and which doubtful batches were confirmed."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)
    off: Annotated[list[Annotated[str, Field(max_length=200)]], Field(max_length=500)] = []
    confirmed: Annotated[list[Annotated[str, Field(max_length=80)]], Field(max_length=2000)] = []


SETTING: Mapping[str, TypeAdapter[Any]] = {
    "workshop": TypeAdapter(Settings),
    "better": BETTER,
    "days": TypeAdapter(Chosen),
    "learning": TypeAdapter(Learning),
    "buying": TypeAdapter(Purse),
}
"""What is kept once for the whole workshop."""


class Unread(BaseModel):
    """A document of the workshop that cannot be read: what is wrong with it, and its text as it is kept."""

    kind: entries.Kind | Literal["setting"]
    slug: str
    says: str
    document: str


@dataclass(frozen=True)
class KeptHere:
    """All that is kept of the workshop at one state of it."""

    version: int
    workshop: Workshop
    unread: tuple[Unread, ...]
    settings: Settings
    chosen_at: int
    lots: tuple[Lot, ...]


def _setting(key: str, document: str | None) -> Any:
    """A setting as it was kept; None where it never was, or cannot be read."""
    with suppress(UnfitDocument):
        return read_json(SETTING[key], document, key) if document else None
    return None


def _says(key: str, document: str) -> str:
    """Why a setting cannot be read."""
    try:
        read_json(SETTING[key], document, f"The saved setting {key}")
    except UnfitDocument as error:
        return str(error)
    return ""


def _unread(key: str) -> Callable[[str], bool]:
    """Whether a setting cannot be read: it is set aside then, not written over."""
    return lambda document: _setting(key, document) is None


class Context:
    """One running Lumso."""

    def __init__(self, db: Database, catalogue: Catalogue, clock: Callable[[], float] = time) -> None:
        """`clock` says what time it is, in seconds since 1970 UTC."""
        self.db, self.catalogue, self.clock = db, catalogue, clock
        self.memo, self.pictures, self.plans = Memo(), Memo(PICTURES), Plans()
        self.measured: dict[tuple[Needs, Kit], KitAnswer] = {}
        self.best: list[tuple[Ask, Days]] = []
        self.moved: list[tuple[float, str]] = []
        self.baskets: dict[Shop, Basket] = {}
        self._reading = Lock()
        self._held: KeptHere | None = None
        self._entries: dict[tuple[entries.Kind, str], Any | Unread] = {}
        self._revisions: dict[tuple[entries.Kind, str], int] = {}

    def forget(self) -> None:
        """Remember nothing of what was read: the database is another one."""
        with self._reading:
            self.memo, self.pictures, self.plans, self._held = Memo(), Memo(PICTURES), Plans(), None
            self.best, self.moved = [], []
            self._entries.clear()
            self._revisions.clear()

    def exact_now(self) -> float:
        """The minute it is since 1970 UTC, to the second."""
        return self.clock() / 60

    def now_min(self) -> float:
        """The whole minute it is since 1970 UTC."""
        return float(int(self.exact_now()))

    def settings(self) -> Settings:
        """What was chosen, or what everybody starts with."""
        return self.held().settings

    def settings_revision(self) -> int:
        """The revision of what was chosen."""
        return self.held().chosen_at

    def choose(self, chosen: Settings, read: int, key: str = "") -> int:
        """Keep what was chosen, having read a revision; returns its own.

        Raises UnknownEntry for measures, a kit or a vessel that are not there, and StaleRevision.
        """
        pick("measure system", self.catalogue.systems, chosen.measures)
        pick("kit", self.known().kits, chosen.kit)
        pick("vessel", {v.slug: v for v in self.catalogue.vessels}, chosen.vessel)
        text = chosen.model_dump_json()
        return settings.change(self.db, "workshop", lambda before: text, read, key, aside=_unread("workshop"))

    def know_better(self, change: Callable[[tuple[Better, ...]], Iterable[Better]]) -> None:
        """Change what is known better of entries of the book, in one go."""

        def changed(before: str | None) -> str:
            return BETTER.dump_json(tuple(change(_setting("better", before) or ()))).decode()

        settings.change(self.db, "better", changed, aside=_unread("better"))

    def workshop(self) -> Workshop:
        """The user's workshop, read again when anybody has changed it. What cannot be read takes nothing with it."""
        return self.held().workshop

    def on_shelf(self) -> Mapping[str, ShelfItem]:
        """What is on the shelf, by slug."""
        workshop = self.workshop()
        return self.memo.recall("on the shelf", (workshop,), lambda: {item.slug: item for item in workshop.shelf})

    def unread(self) -> tuple[Unread, ...]:
        """What is kept in the workshop and cannot be read."""
        return self.held().unread

    def revision(self, kind: entries.Kind, slug: str) -> int:
        """The revision of an entry of one's own; 0 where there is none."""
        self.held()
        return self._revisions.get((kind, slug), 0)

    def revisions(self) -> Mapping[tuple[entries.Kind, str], int]:
        """The revisions of all entries of one's own as they are now."""
        self.held()
        return dict(self._revisions)

    def held(self) -> KeptHere:
        """All that is kept of the workshop, as it is now. Only what was changed since is read."""
        version = self.db.version()
        with self._reading:
            if self._held is None or self._held.version != version:
                self._read_entries(0 if self._held is None else self._held.version)
                self._held = self._whole(version)
            return self._held

    def _read_entries(self, after: int) -> None:
        for at, entry in entries.every(self.db, after).items():
            kind, slug = at
            self._revisions[at] = entry.revision
            try:
                self._entries[at] = read_json(DOCUMENT[kind], entry.document, f"The saved {kind} {slug}")
            except UnfitDocument as error:
                self._entries[at] = Unread(kind=kind, slug=slug, says=str(error), document=entry.document)
        for gone in self._entries.keys() - entries.names(self.db):
            del self._entries[gone], self._revisions[gone]

    def _whole(self, version: int) -> KeptHere:
        own: dict[str, list[Any]] = {"kit": [], "recipe": [], "shelf": [], "lot": []}
        unread = [e for e in self._entries.values() if isinstance(e, Unread)]
        for (kind, _), entry in sorted(self._entries.items(), key=lambda e: e[0]):
            if not isinstance(entry, Unread):
                own[kind].append(entry)
        kept = {key: settings.get(self.db, key) for key in SETTING}
        for key, setting in kept.items():
            if setting.document and _setting(key, setting.document) is None:
                says = _says(key, setting.document)
                unread.append(Unread(kind="setting", slug=key, says=says, document=setting.document))
        chosen: Settings = _setting("workshop", kept["workshop"].document) or Settings()
        learning: Learning = _setting("learning", kept["learning"].document) or Learning()
        kits = {k.slug for k in own["kit"]} | set(self.catalogue.kits)
        workshop = Workshop(
            measures=chosen.measures,
            kit=chosen.kit if chosen.kit in kits else Settings().kit,
            vessel=chosen.vessel,
            paces={**{f.of: f.factor for f in self.paces(learning)}, **chosen.paces},
            waits={f.of: f.factor for f in self.waits(learning)},
            kits=tuple(own["kit"]),
            shelf=tuple(own["shelf"]),
            recipes=tuple(own["recipe"]),
            better=_setting("better", kept["better"].document) or (),
            learned=self._learned(learning),
        )
        return KeptHere(version, workshop, tuple(unread), chosen, kept["workshop"].revision, tuple(own["lot"]))

    def ratios(self) -> list[Ratio]:
        """What surfaces took, pot by pot."""
        return [Ratio(r.rate_of, r.pot, r.job_id, r.begun_min, r.rate) for r in pots.rates(self.db)]

    def _learned(self, chosen: Learning) -> tuple[LearnedRate, ...]:
        """What the log says of rates, as far as it is to count."""
        found = lessons(self.ratios(), chosen.confirmed, chosen.off)
        return tuple(x.learned for x in found if x.learned is not None and x.on)

    def sightings(self) -> list[Sighting]:
        """What was seen of how long films dry."""
        rows = events.sightings(self.db, "wait")
        return [Sighting(r.of, r.job_id, r.at_min, r.planned, r.seen, r.dry) for r in rows]

    def waits(self, chosen: Learning) -> list[Factor]:
        """How long mixes dry, by the log, as far as that is to count."""
        by: dict[str, list[Sighting]] = {}
        for one in self.sightings():
            by.setdefault(one.of, []).append(one)
        return [learned_wait(of, seen) for of, seen in by.items() if f"dries|{of}" not in chosen.off]

    def paces(self, chosen: Learning) -> list[Factor]:
        """How fast the painter is, technique by technique, as far as that is to count. Each job counts once."""
        by: dict[str, dict[str, list[float]]] = {}
        for r in events.sightings(self.db, "pace"):
            by.setdefault(r.of, {}).setdefault(r.job_id, []).append(log(clipped(r.seen / r.planned)))
        return [
            learned_pace(of, [exp(sum(x) / len(x)) for x in jobs.values()])
            for of, jobs in by.items()
            if f"pace|{of}" not in chosen.off
        ]

    def learning(self) -> tuple[Learning, int]:
        """What of the log is to count, and its revision."""
        kept = settings.get(self.db, "learning")
        return _setting("learning", kept.document) or Learning(), kept.revision

    def choose_learning(self, chosen: Learning, read: int, key: str = "") -> int:
        """Choose what of the log is to count, having read a revision; returns its own. Raises StaleRevision."""
        text = SETTING["learning"].dump_json(chosen).decode()
        return settings.change(self.db, "learning", lambda before: text, read, key, aside=_unread("learning"))

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

    def days_chosen(self) -> tuple[Chosen, int]:
        """What was chosen for the days, and its revision."""
        kept = settings.get(self.db, "days")
        return _setting("days", kept.document) or Chosen(), kept.revision

    def choose_days(self, chosen: Chosen, read: int, key: str = "") -> int:
        """Keep what was chosen for the days, having read a revision; returns its own. Raises StaleRevision."""
        text = SETTING["days"].dump_json(chosen).decode()
        return settings.change(self.db, "days", lambda before: text, read, key, aside=_unread("days"))

    def purse(self) -> tuple[Purse, int]:
        """What was chosen for buying, and its revision."""
        kept = settings.get(self.db, "buying")
        return _setting("buying", kept.document) or Purse(), kept.revision

    def choose_purse(self, purse: Purse, read: int, key: str = "") -> int:
        """Keep what was chosen for buying, having read a revision; returns its own. Raises StaleRevision."""
        text = SETTING["buying"].dump_json(purse).decode()
        return settings.change(self.db, "buying", lambda before: text, read, key, aside=_unread("buying"))

    def lots(self) -> tuple[Lot, ...]:
        """What was bought and stands in the workshop."""
        return self.held().lots

    def room(self) -> Room:
        """The room as it was last said to be."""
        chosen = self.settings()
        return steady(chosen.temperature_c, chosen.humidity)

    def known_for(self, job: Job) -> Catalogue:
        """The catalogue with the job's own entries, and the workshop's on top."""
        args = (self.workshop(), self.catalogue, job.entries)
        return self.memo.recall("known for a job", args, lambda: known_to(*args))
