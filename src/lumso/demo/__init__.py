"""The Lantern Loft: a made-up puppet theatre being refurbished, as jobs to look at and play with."""

import json
from importlib import resources

from lumso.core.book.catalogue import Catalogue
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.formats import jobfile, workshop
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
        for job in made:
            jobs.create(db, job.name, jobfile.to_json(job))
    return len(made)
