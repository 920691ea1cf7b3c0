"""The Lantern Loft: a made-up puppet theatre being refurbished, as jobs to look at and play with."""

from importlib import resources

from lumso.core.entries import embed
from lumso.core.job import Job
from lumso.core.workshop import Catalogue
from lumso.formats import jobfile
from lumso.store import jobs
from lumso.store.database import Database


def demo_jobs() -> list[Job]:
    """The demo jobs, in the order they are seeded."""
    folder = resources.files("lumso.demo") / "jobs"
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".json")), key=lambda f: f.name, reverse=True)
    return [jobfile.from_json(f.read_bytes(), f.name) for f in files]


def seed(db: Database, catalogue: Catalogue) -> int:
    """Put the demo jobs into an empty database; returns how many. One that holds jobs is left as it is."""
    if jobs.every(db):
        return 0
    made = [embed(job, catalogue) for job in demo_jobs()]
    for job in made:
        jobs.create(db, job.name, jobfile.to_json(job))
    return len(made)
