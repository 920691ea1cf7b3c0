"""Jobs on the command line: the plan, the order of work, the days of a job file."""

import gc
import os
import sys
from collections.abc import Iterable
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from lumso.core.errors import LumsoError, Problem

from .parts import fail

if TYPE_CHECKING:
    from lumso.core.layers.conditions import Room
    from lumso.core.work.work import Work
    from lumso.core.workshop.workshop import Workshop

JobFile = Annotated[Path, typer.Argument(help="A job file; - for standard input.")]
Measures = Annotated[str, typer.Option(help="us, metric, australian or imperial.")]
Temperature = Annotated[float, typer.Option(min=-10, max=50, help="°C in the room.")]
Humidity = Annotated[float, typer.Option(min=1, max=100, help="Relative humidity in the room, per cent.")]


def _worked(file: Path, measures: str, temperature: float, humidity: float) -> "tuple[Work, Workshop, Room]":
    """A job file, worked out. Exits with 2 when it is none."""
    gc.disable()  # over before anything is garbage
    from lumso.catalogue import shipped
    from lumso.core.layers.conditions import steady
    from lumso.core.work.work import work as worked
    from lumso.core.workshop.workshop import Workshop
    from lumso.formats.jobfile import from_json

    catalogue = shipped()
    if measures not in catalogue.systems:
        raise fail(f"there are no measures called {measures!r}. Known: {', '.join(catalogue.systems)}.", 2)
    workshop, room = Workshop(measures=measures), steady(temperature, humidity / 100)
    try:
        text = sys.stdin.buffer.read() if str(file) == "-" else file.read_bytes()
        return worked(from_json(text, str(file)), workshop, catalogue, room), workshop, room
    except OSError as error:
        raise fail(f"{file} cannot be read: {error.strerror}.", 2) from None
    except LumsoError as error:
        raise fail(str(error), 2) from None


def _say(answer: bytes, problems: Iterable[Problem]) -> None:
    """Print an answer, and what stands in its way to the error output. Exits with 1 when something does."""
    sys.stdout.buffer.write(answer + os.linesep.encode())
    found = list(problems)
    for problem in found:
        typer.echo(f"{problem.at}: {problem.says} Allowed: {problem.allowed}.", err=True)
    if found:
        raise typer.Exit(1)


def plan(file: JobFile, measures: Measures = "metric", temperature: Temperature = 20.0,
         humidity: Humidity = 50.0) -> None:  # fmt: skip
    """Print the plan of a job file as JSON. Exits with 1 when the job holds a problem, with 2 when it is no job."""
    from lumso.core.memory import Memo
    from lumso.core.plan.plan import Plan, plan_of
    from lumso.formats.validators import adapter

    made, workshop, room = _worked(file, measures, temperature, humidity)
    planned = plan_of(made, workshop, room, Memo())
    _say(adapter(Plan).dump_json(planned, indent=2), planned.problems)


def work(file: JobFile, measures: Measures = "metric", temperature: Temperature = 20.0,
         humidity: Humidity = 50.0) -> None:  # fmt: skip
    """Print the order of work of a job file as JSON: operations, batches, what holds between. Exits as plan does."""
    from lumso.core.work.order_file import OrderFile, order_file
    from lumso.formats.validators import adapter

    made, _, _ = _worked(file, measures, temperature, humidity)
    _say(adapter(OrderFile).dump_json(order_file(made), indent=2), made.problems)


ZoneName = Annotated[str, typer.Argument(help="A zone of the job, by its name or its id.")]
Picture = Annotated[Path, typer.Argument(help="Where the picture goes: a PNG.")]
Px = Annotated[int, typer.Option(min=32, max=2048, help="How many pixels wide and high.")]


def chip(file: JobFile, zone: ZoneName, out: Picture, px: Px = 640) -> None:
    """Write a picture of a zone's finish, lit from the side, with a bar of 50 mm. An estimate: make a test board."""
    from lumso.core.look.look import Look
    from lumso.formats.png import png

    made, _, _ = _worked(file, "metric", 20.0, 50.0)
    zones = made.jobs[0].zones
    found = [z for z in zones if zone.casefold() in (z.zone.id.casefold(), z.zone.name.casefold())]
    if not found:
        names = ", ".join(z.zone.name for z in zones)
        raise fail(f"the job has no zone {zone!r}. It has: {names}.", 2)
    if found[0].stack is None:
        raise fail(f"{found[0].zone.name} cannot be pictured: {made.problems[0].says if made.problems else ''}", 1)
    look = Look(found[0].stack)
    try:
        out.write_bytes(png(look.picture(px), look.side_mm, "An estimate. Make a test board."))
    except OSError as error:
        raise fail(f"{out} cannot be written: {error.strerror}.", 2) from None
    typer.echo(f"{found[0].zone.name}: {look.column.top.words}, an estimate; {out}")


Hours = Annotated[str, typer.Option(help="When somebody is at the bench: tue,thu 18:30-21:30; sat 10-16.")]
Zone = Annotated[str, typer.Option(help="The time zone of the workshop, as IANA names it.")]
Begin = Annotated[str, typer.Option("--from", help="When it may be begun, on the workshop's clock; else now.")]
Due = Annotated[str, typer.Option(help="When it was promised, on the workshop's clock.")]
Place = Annotated[str, typer.Option(help="Whose air: heated-room, unheated-shed, porch; else as it is.")]
AtOnce = Annotated[bool, typer.Option("--at-once", help="The days found at once, with no search for the best.")]
Painters = Annotated[int, typer.Option(min=1, max=6, help="How many are at the bench.")]


def days(file: JobFile, hours: Hours = "mon-fri 18:30-21:30; sat 10-16", zone: Zone = "UTC", begin: Begin = "",
         due: Due = "", place: Place = "", painters: Painters = 1, at_once: AtOnce = False,
         measures: Measures = "metric", temperature: Temperature = 20.0,
         humidity: Humidity = 50.0) -> None:  # fmt: skip
    """Print when what is done on a job, as JSON: the best days for the hours there are. Exits as plan does."""
    from time import time

    from lumso.core.book.catalogue import pick
    from lumso.core.days.air import outlook
    from lumso.core.days.chosen import on_wall
    from lumso.core.days.days import Days
    from lumso.core.days.hours import Timetable, check_timetable, parse_week
    from lumso.core.days.settle import Ask, JobAsk, settle
    from lumso.core.days.view import days_of
    from lumso.formats.validators import adapter

    made, workshop, room = _worked(file, measures, temperature, humidity)
    try:
        table = check_timetable(Timetable(zone, parse_week(hours), painters=painters))
        now = on_wall(begin, zone, "from") or float(int(time() / 60))
        catalogue = made.jobs[0].catalogue
        profile = pick("place", catalogue.profiles, place) if place else None
        job = JobAsk("", made.jobs[0].job, on_wall(due, zone, "due"))
        air = outlook(profile, room.first, (), zone, now, 366).room
        ask = Ask((job,), workshop, catalogue, room, air, table, now)
    except LumsoError as error:
        raise fail(str(error), 2) from None
    if at_once:
        answer = days_of(settle(ask))
    else:
        from lumso.core.solver.solve import best_days

        answer = best_days(ask)
    _say(adapter(Days).dump_json(answer, indent=2), answer.problems)
