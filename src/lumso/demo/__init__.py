"""The Lantern Loft: a made-up puppet theatre being refurbished, as jobs to look at and play with."""

import json
from collections.abc import Mapping
from importlib import resources

from lumso.core.book.catalogue import Catalogue
from lumso.core.buying.lots import Lot
from lumso.core.buying.purse import Purse
from lumso.core.days.chosen import Chosen, JobChosen
from lumso.core.days.hours import Hours, Timetable
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.formats import jobfile, workshop
from lumso.formats.reading import read
from lumso.formats.validators import adapter
from lumso.formats.workshop import WorkshopFile
from lumso.store import entries, jobs, settings
from lumso.store.database import Database

LAST_WORKED_ON = "programme-rack.json"


def demo_jobs() -> list[Job]:
    """The demo jobs, in the order they are seeded: the last is the one worked on last."""
    folder = resources.files("lumso.demo") / "jobs"
    files = [f for f in folder.iterdir() if f.name.endswith(".json")]
    files.sort(key=lambda f: (f.name == LAST_WORKED_ON, f.name))
    return [jobfile.from_json(f.read_bytes(), f.name) for f in files]


def demo_workshop(catalogue: Catalogue) -> WorkshopFile:
    """The drawer and the shelf of the paint loft."""
    text = (resources.files("lumso.demo") / "workshop.json").read_bytes()
    return workshop.from_json(text, catalogue, "workshop.json")


IN_THE_DAYS = ("Costume wardrobe", "Programme rack", "Hat stand")
"""What the crew is at."""


def _days(ids: Mapping[str, str]) -> Chosen:
    """Four evenings a week and Saturdays, in a heated loft."""
    evening = (Hours(18 * 60 + 30, 21 * 60 + 30),)
    week = (evening, evening, (), evening, evening, (Hours(10 * 60, 13 * 60), Hours(14 * 60, 17 * 60)), ())
    return Chosen(
        table=Timetable(week=week),
        profile="heated-room",
        jobs=tuple(JobChosen(ids[name], priority=n + 1) for n, name in enumerate(IN_THE_DAYS) if name in ids),
    )


def demo_buying() -> tuple[Purse, list[Lot]]:
    """Made-up prices, and what was bought for the loft."""
    held = json.loads((resources.files("lumso.demo") / "buying.json").read_bytes())
    return read(adapter(Purse), held["purse"], "buying.json"), [
        read(adapter(Lot), lot, "buying.json") for lot in held["lots"]
    ]


def seed(db: Database, catalogue: Catalogue) -> int:
    """Put the demo jobs and workshop into a database nobody has used, all or nothing; returns how many jobs."""
    if not db.is_untouched():
        return 0
    file = demo_workshop(catalogue)
    made = [embed(job, catalogue) for job in demo_jobs()]
    with db.write():
        entries.put(db, [("kit", k.slug, workshop.document("kit", k)) for k in file.kits])
        entries.put(db, [("shelf", i.slug, workshop.document("shelf", i)) for i in file.shelf])
        settings.put(db, "workshop", json.dumps({"measures": "metric", "kit": file.kits[0].slug}))
        ids = {}
        for job in made:
            ids[job.name] = jobs.create(db, job.name, jobfile.to_json(job)).id
        purse, lots = demo_buying()
        settings.put(db, "buying", adapter(Purse).dump_json(purse).decode())
        entries.put(db, [("lot", lot.slug, workshop.document("lot", lot)) for lot in lots])
        settings.put(db, "days", adapter(Chosen).dump_json(_days(ids)).decode())
    return len(made)
