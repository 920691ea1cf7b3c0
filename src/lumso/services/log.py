"""The log: batches as they were poured, what is left of them, how to make one again, and what they teach."""

from collections.abc import Iterable, Mapping
from contextlib import suppress
from typing import Any

from pydantic import BaseModel

from lumso.core.days.facts import facts_of
from lumso.core.days.words import day_of, on_day
from lumso.core.job.job import FromArea
from lumso.core.layers.drying import factor
from lumso.core.learn.evidence import Lesson, lessons
from lumso.core.learn.waits import Factor
from lumso.core.log.again import Again, Difference, again, as_job, what_changed
from lumso.core.log.event import Event, notes_of, standing
from lumso.core.log.jars import JarNow, JarUse, Wanted, jar_now, uses_of, wanted_for
from lumso.core.log.piece_sheet import PieceSheet, piece_sheet
from lumso.core.log.pot import PotState, replay
from lumso.core.log.summary import PotSummary
from lumso.formats import jobfile
from lumso.formats.pots import summary_from_json
from lumso.formats.reading import UnfitDocument
from lumso.store import jobs, pots
from lumso.store.errors import NotFound
from lumso.store.ids import new_id
from lumso.store.pots import StoredPot

from .beside import Beside, aside
from .context import Context, Learning
from .jobs import at_head
from .noting import of_jobs, of_pots
from .printing import Paper


class LogOut(BaseModel):
    """Batches, the newest first, and how many there are altogether."""

    pots: list[PotSummary]
    more: bool
    all: int


def summary_of(stored: StoredPot) -> PotSummary:
    """A pot in a few lines."""
    return summary_from_json(stored.document)


def found(text: str, job: str, from_min: float, until_min: float, limit: int, here: Context) -> LogOut:
    """Batches whose colour, mix, piece, place, date or notes hold every word of a text."""
    held, more = pots.found(here.db, text, job, from_min, until_min, limit)
    return LogOut(pots=[summary_of(p) for p in held], more=more, all=pots.count(here.db))


class Entry(BaseModel):
    """One thing noted of a batch, as it stands: `corrected` where it was put right later."""

    event: Event
    corrected: bool


class PotLifeOut(BaseModel):
    """A batch's whole life: as it was poured, judged, used and kept, and the jars before and after it."""

    summary: PotSummary
    state: PotState
    jar: JarNow | None
    entries: list[Entry]
    before: list[PotSummary]
    after: list[PotSummary]
    like: list[PotSummary]
    """Other batches of the same mix, the newest first."""


def life_of(pot: str, here: Context) -> PotLifeOut:
    """A batch's whole life, by its id or its code. Raises NotFound."""
    return _life(pots.get(here.db, pot), here)


def _life(stored: StoredPot, here: Context) -> PotLifeOut:
    known = of_pots(here, [stored.id])
    every, _ = replay(notes_of(known))
    state = every[stored.id]
    summary = summary_of(stored)
    of_job = of_jobs(here, stored.job_id)
    corrected = {e.retracts for e in (*known, *of_job) if e.did == "corrected"}
    mine = []
    for e in standing([*known, *(x for x in of_job if x.id not in {k.id for k in known})]):
        act = e.act
        of_pot = stored.id in {getattr(act, "pot", ""), getattr(act, "jar", "")}
        of_batch = e.planned is not None and bool(summary.batch) and e.planned.batch == summary.batch
        if of_pot or (of_batch and e.job == stored.job_id):
            mine.append(Entry(event=e, corrected=e.id in corrected))
    mine.sort(key=lambda x: x.event.at_min)
    after = [p for p, s in every.items() if any(c.jar == stored.id for c in s.carried)]
    like, _ = pots.found(here.db, summary.name)
    alike = [s for p in like if p.id != stored.id and (s := summary_of(p)).recipe == summary.recipe]
    jar = jar_of(state, summary, here, here.exact_now()) if state.state == "kept" else None
    return PotLifeOut(
        summary=summary, state=state, jar=jar, entries=mine, before=_summaries(summary.carried_from, here),
        after=_summaries(after, here), like=alike[:12],
    )  # fmt: skip


def _summaries(names: Iterable[str], here: Context) -> list[PotSummary]:
    found = []
    for name in names:
        with suppress(NotFound):
            found.append(summary_of(pots.get(here.db, name)))
    return found


def jar_of(state: PotState, summary: PotSummary, here: Context, now: float) -> JarNow:
    """A jar as it stands now."""
    catalogue = here.known()
    recipe = catalogue.recipes.get(summary.recipe)
    air = here.room().first
    slow = factor(air.temperature_c, air.humidity)
    days = recipe.keeping_life_days if recipe else None
    return jar_now(state, now, slow, days, catalogue.vessels, catalogue.materials)


class JarOut(BaseModel):
    """A jar on the shelf, and what it is good for."""

    summary: PotSummary
    jar: JarNow
    uses: list[JarUse]


def pots_kept(here: Context) -> list[tuple[PotState, PotSummary]]:
    """The jars on the shelf: each pot as it stands, and in a few lines."""
    return [(replay(notes_of(of_pots(here, [p.id])))[0][p.id], summary_of(p)) for p in pots.jars(here.db)]


def jars(here: Context) -> list[JarOut]:
    """What is left, and what it is good for among the coats that are still to be laid."""
    wanted = here.memo.recall("wanted", (here.db.stamp(),), lambda: _wanted(here))
    now = here.exact_now()
    found = []
    for state, summary in pots_kept(here):
        uses = [u for u in uses_of(state, wanted) if u.job != summary.job or u.how != "as the start of it"]
        found.append(JarOut(summary=summary, jar=jar_of(state, summary, here, now), uses=uses[:6]))
    return found


MOST_JOBS = 40
"""So many of the jobs that were worked on last are looked through for what a jar may be used for."""


def _wanted(here: Context) -> list[Wanted]:
    """The coats of open jobs that are still to be laid."""
    found = []
    for stored in jobs.page(here.db, MOST_JOBS).jobs:
        try:
            job = at_head(stored.id, here)
        except (NotFound, UnfitDocument):
            continue
        done = facts_of(of_jobs(here, stored.id), stored.id)
        for brew in here.work(job).made.brews:
            if f"{brew.id}:mix" not in done and isinstance(brew.run.first.laid.layer.want, FromArea):
                found.append(wanted_for(stored.id, job.name, brew))
    return found


class LessonOut(BaseModel):
    """What the log says of a mix put on one way, with its names."""

    lesson: Lesson
    recipe: str
    technique: str


class FactorOut(BaseModel):
    """A factor by what was seen, with what it is called by, and whether it counts. `key` switches it off."""

    key: str
    name: str
    factor: Factor
    on: bool


class LearnedOut(BaseModel):
    """All that the log says, and what was chosen of it."""

    lessons: list[LessonOut]
    waits: list[FactorOut]
    """How long mixes dry here."""
    paces: list[FactorOut]
    """How fast the painter is."""
    chosen: Learning


def learned(here: Context) -> tuple[LearnedOut, int]:
    """What the log says of what mixes take, and by what; and the revision of what was chosen of it."""
    chosen, revision = here.learning()
    known = here.known()
    found = lessons(here.ratios(), chosen.confirmed, chosen.off)
    out = []
    for lesson in found:
        recipe, _, technique = lesson.of.partition("|")
        names = _called(known.recipes, recipe), _called(known.techniques, technique)
        out.append(LessonOut(lesson=lesson, recipe=names[0], technique=names[1]))
    waits = [_factor("dries", f, known.recipes, chosen) for f in here.waits(Learning())]
    paces = [_factor("pace", f, known.techniques, chosen) for f in here.paces(Learning())]
    return LearnedOut(lessons=out, waits=waits, paces=paces, chosen=chosen), revision


def _factor(kind: str, found: Factor, entries: Mapping[str, Any], chosen: Learning) -> FactorOut:
    key = f"{kind}|{found.of}"
    return FactorOut(key=key, name=_called(entries, found.of), factor=found, on=key not in chosen.off)


def _called(entries: Mapping[str, Any], slug: str) -> str:
    return str(entries[slug].name) if slug in entries else slug


def made_again(pot: str, ml: float, here: Context) -> Again:
    """What to pour to make a batch again as it really was. Raises NotFound."""
    return again(summary_of(pots.get(here.db, pot)), ml)


def changed(pot: str, since: str, here: Context) -> list[Difference]:
    """What is different in a batch since another. Raises NotFound."""
    return list(what_changed(summary_of(pots.get(here.db, since)), summary_of(pots.get(here.db, pot))))


def make_again(pot: str, ml: float, key: str, here: Context) -> str:
    """A pot of its own to be mixed at the bench: as it was really poured, at another amount. The id of its job."""
    summary = summary_of(pots.get(here.db, pot))
    job = as_job(summary, again(summary, ml), here.known(), here.book(), (new_id(), new_id()))
    return jobs.create(here.db, job.name, jobfile.to_json(job), key).id


def piece_pdf(sheet: PieceSheet, days: dict[float, str], paper: Paper) -> bytes:
    """The sheet of a piece as PDF."""
    from lumso.formats import pdf  # the layout engine takes a while to load

    return pdf.piece_sheet(sheet, days, paper)


def label_pdf(pot: PotSummary, address: str, on: str, keeps: str, paper: Paper) -> bytes:
    """The label of a jar as PDF."""
    from lumso.formats import pdf

    return pdf.jar_label(pot, address, on, keeps, paper)


def sheet_of_piece(job_id: str, here: Context) -> tuple[PieceSheet, dict[float, str]]:
    """What goes with a piece, and the days of the minutes in it, in words. Raises NotFound, UnfitDocument."""
    job = at_head(job_id, here)
    mine, _ = pots.found(here.db, job=job_id, limit=500)
    sheet = piece_sheet(job.name, here.work(job), of_jobs(here, job_id), [summary_of(p) for p in mine])
    zone = here.days_chosen()[0].table.zone
    instants = {p.at_min for z in sheet.zones for p in z.put_on}
    instants |= {m for z in sheet.zones for m in (z.gently_min, z.cured_min) if m is not None}
    return sheet, {m: f"{day_of(m, zone)} {on_day(m, zone)[:4]}" for m in instants}


async def print_piece(job_id: str, paper: Paper, here: Context, beside: Beside) -> tuple[bytes, str]:
    """What goes with a piece as PDF, and what it is called. Raises NotFound, UnfitDocument."""
    sheet, days = await aside(sheet_of_piece, job_id, here)
    return await beside(piece_pdf, sheet, days, paper), f"About {sheet.name}"


async def print_label(pot: str, reached: str, paper: Paper, here: Context, beside: Beside) -> tuple[bytes, str]:
    """The label of a jar with its code, at the address `reached`, and what it is called. Raises NotFound."""
    life = await aside(life_of, pot, here)
    summary, jar = life.summary, life.jar
    zone = (await aside(here.days_chosen))[0].table.zone
    on = day_of(summary.left_min if summary.left_min is not None else summary.begun_min, zone)
    until = jar.keeps_until_min if jar else None
    keeps = "How long it keeps: its label." if until is None else f"Keeps until {day_of(until, zone)}."
    address = f"{reached}/log/pots/{summary.code or summary.pot}"
    return await beside(label_pdf, summary, address, on, keeps, paper), f"Label {summary.code}"
