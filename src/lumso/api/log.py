"""The log: batches as they were poured, what is left of them, how to make one again, and what they teach."""

from collections.abc import Iterable, Mapping
from contextlib import suppress
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

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
from lumso.services.context import Context, Learning
from lumso.store import events, jobs, pots
from lumso.store.errors import NotFound
from lumso.store.ids import new_id
from lumso.store.pots import StoredPot

from .air import exact_now
from .context import Here, IfMatch, Key, read_revision
from .noting import event_of
from .sheets import pdf_reply, reached
from .workers import run

router = APIRouter(prefix="/log", tags=["log"])

PotName = Annotated[str, Field(max_length=80)]


class LogOut(BaseModel):
    """Batches, the newest first, and how many there are altogether."""

    pots: list[PotSummary]
    more: bool
    all: int


def summary_of(stored: StoredPot) -> PotSummary:
    """A pot in a few lines."""
    return summary_from_json(stored.document)


@router.get("")
def get_log(here: Here, text: Annotated[str, Query(max_length=200)] = "",
            job: Annotated[str, Query(max_length=80)] = "", from_min: float = 0.0, until_min: float = 1e12,
            limit: Annotated[int, Query(ge=1, le=200)] = pots.PAGE) -> LogOut:  # fmt: skip
    """Batches whose colour, mix, piece, place, date or notes hold every word of a text."""
    found, more = pots.found(here.db, text, job, from_min, until_min, limit)
    return LogOut(pots=[summary_of(p) for p in found], more=more, all=pots.count(here.db))


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


def _life(stored: StoredPot, here: Context, request: Request) -> PotLifeOut:
    known = [event_of(e) for e in events.of_pots(here.db, [stored.id])]
    every, _ = replay(notes_of(known))
    state = every[stored.id]
    summary = summary_of(stored)
    of_job = [event_of(e) for e in events.of_jobs(here.db, [stored.job_id])]
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
    jar = jar_of(state, summary, here, exact_now(request)) if state.state == "kept" else None
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


@router.get("/jars")
def get_jars(here: Here, request: Request) -> list[JarOut]:
    """What is left, and what it is good for among the coats that are still to be laid."""
    wanted = here.memo.recall("wanted", (here.db.stamp(),), lambda: _wanted(here))
    now = exact_now(request)
    found = []
    for stored in pots.jars(here.db):
        every, _ = replay(notes_of([event_of(e) for e in events.of_pots(here.db, [stored.id])]))
        state, summary = every[stored.id], summary_of(stored)
        uses = [u for u in uses_of(state, wanted) if u.job != stored.job_id or u.how != "as the start of it"]
        found.append(JarOut(summary=summary, jar=jar_of(state, summary, here, now), uses=uses[:6]))
    return found


MOST_JOBS = 40
"""So many of the jobs that were worked on last are looked through for what a jar may be used for."""


def _wanted(here: Context) -> list[Wanted]:
    """The coats of open jobs that are still to be laid."""
    found = []
    for stored in jobs.page(here.db, MOST_JOBS).jobs:
        try:
            job = jobfile.from_json(jobs.get(here.db, stored.id).document, f"Job {stored.id}")
        except (NotFound, UnfitDocument):
            continue
        done = facts_of([event_of(e) for e in events.of_jobs(here.db, [stored.id])], stored.id)
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


@router.get("/learned")
def get_learned(here: Here, response: Response) -> LearnedOut:
    """What the log says of what mixes take, and by what."""
    chosen, revision = here.learning()
    response.headers["ETag"] = f'"{revision}"'
    known = here.known()
    found = lessons(here.ratios(), chosen.confirmed, chosen.off)
    out = []
    for lesson in found:
        recipe, _, technique = lesson.of.partition("|")
        names = _called(known.recipes, recipe), _called(known.techniques, technique)
        out.append(LessonOut(lesson=lesson, recipe=names[0], technique=names[1]))
    waits = [_factor("dries", f, known.recipes, chosen) for f in here.waits(Learning())]
    paces = [_factor("pace", f, known.techniques, chosen) for f in here.paces(Learning())]
    return LearnedOut(lessons=out, waits=waits, paces=paces, chosen=chosen)


def _factor(kind: str, found: Factor, entries: Mapping[str, Any], chosen: Learning) -> FactorOut:
    key = f"{kind}|{found.of}"
    return FactorOut(key=key, name=_called(entries, found.of), factor=found, on=key not in chosen.off)


def _called(entries: Mapping[str, Any], slug: str) -> str:
    return str(entries[slug].name) if slug in entries else slug


@router.put("/learned")
def put_learned(chosen: Learning, here: Here, response: Response, if_match: IfMatch, key: Key) -> Learning:
    """Choose what of the log counts: what is switched off, and what was confirmed."""
    response.headers["ETag"] = f'"{here.choose_learning(chosen, read_revision(if_match), key)}"'
    return chosen


@router.get("/pots/{pot}")
def get_pot_life(pot: PotName, here: Here, request: Request) -> PotLifeOut:
    """A batch's whole life, by its id or its code."""
    return _life(pots.get(here.db, pot), here, request)


@router.get("/pots/{pot}/again")
def get_again(pot: PotName, here: Here, ml: Annotated[float, Query(gt=0, le=200_000)] = 100.0) -> Again:
    """What to pour to make a batch again as it really was."""
    return again(summary_of(pots.get(here.db, pot)), ml)


@router.get("/pots/{pot}/changed")
def get_changed(pot: PotName, since: PotName, here: Here) -> list[Difference]:
    """What is different in a batch since another."""
    return list(what_changed(summary_of(pots.get(here.db, since)), summary_of(pots.get(here.db, pot))))


class AgainIn(BaseModel):
    """How much of a batch to make again."""

    model_config = ConfigDict(extra="forbid")
    ml: Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]


class MadeOut(BaseModel):
    """The job that was made."""

    job: str


@router.post("/pots/{pot}/again", status_code=201)
def make_again(pot: PotName, asked: AgainIn, here: Here, key: Key) -> MadeOut:
    """A pot of its own to be mixed at the bench: as it was really poured, at another amount."""
    summary = summary_of(pots.get(here.db, pot))
    job = as_job(summary, again(summary, asked.ml), here.known(), here.book(), (new_id(), new_id()))
    stored = jobs.create(here.db, job.name, jobfile.to_json(job), key)
    return MadeOut(job=stored.id)


PDF: dict[int | str, dict[str, Any]] = {200: {"content": {"application/pdf": {}}}}


def piece_pdf(sheet: PieceSheet, days: dict[float, str], paper: Literal["a4", "letter"]) -> bytes:
    """The sheet of a piece as PDF."""
    from lumso.formats import pdf  # the layout engine takes a while to load

    return pdf.piece_sheet(sheet, days, paper)


def label_pdf(pot: PotSummary, address: str, on: str, keeps: str, paper: Literal["a4", "letter"]) -> bytes:
    """The label of a jar as PDF."""
    from lumso.formats import pdf

    return pdf.jar_label(pot, address, on, keeps, paper)


@router.get("/jobs/{job_id}/sheet.pdf", response_class=Response, responses=PDF)
async def get_piece_sheet(job_id: str, request: Request, here: Here,
                          paper: Literal["a4", "letter"] = "a4") -> Response:  # fmt: skip
    """What was put on a piece, when, how to care for it and how to mend it, to go with it."""

    def made() -> tuple[PieceSheet, dict[float, str]]:
        job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
        mine, _ = pots.found(here.db, job=job_id, limit=500)
        known = [event_of(e) for e in events.of_jobs(here.db, [job_id])]
        sheet = piece_sheet(job.name, here.work(job), known, [summary_of(p) for p in mine])
        zone = here.days_chosen()[0].table.zone
        instants = {p.at_min for z in sheet.zones for p in z.put_on}
        instants |= {m for z in sheet.zones for m in (z.gently_min, z.cured_min) if m is not None}
        return sheet, {m: f"{day_of(m, zone)} {on_day(m, zone)[:4]}" for m in instants}

    sheet, days = await run_in_threadpool(made)
    return pdf_reply(await run(request, piece_pdf, sheet, days, paper), f"About {sheet.name}")


@router.get("/pots/{pot}/label.pdf", response_class=Response, responses=PDF)
async def get_label(pot: PotName, request: Request, here: Here, paper: Literal["a4", "letter"] = "a4") -> Response:
    """The label of a jar, with its code."""
    stored = await run_in_threadpool(pots.get, here.db, pot)
    life = await run_in_threadpool(_life, stored, here, request)
    summary, jar = life.summary, life.jar
    zone = (await run_in_threadpool(here.days_chosen))[0].table.zone
    on = day_of(summary.left_min if summary.left_min is not None else summary.begun_min, zone)
    until = jar.keeps_until_min if jar else None
    keeps = "How long it keeps: its label." if until is None else f"Keeps until {day_of(until, zone)}."
    address = f"{reached(request)}/log/pots/{summary.code or summary.pot}"
    return pdf_reply(await run(request, label_pdf, summary, address, on, keeps, paper), f"Label {summary.code}")
