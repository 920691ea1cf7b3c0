"""What the Lantern Loft wrote down: pieces finished earlier and put away since, their batches and what is left."""

import random
from dataclasses import replace

from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.core.log.acts import Act, Begun, Left, Looked, Poured, Stirred, Went
from lumso.core.log.event import Did
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.pour.pouring import lines_of
from lumso.core.work.batch_file import BatchFile
from lumso.formats import jobfile
from lumso.services.context import Context
from lumso.services.noting import EventIn, begun_as, kept
from lumso.store import jobs
from lumso.store.jobs import StoredJob

from . import demo_jobs

DAY_MIN = 24 * 60.0
EARLIER = (
    ("Picture frames", "Cloakroom frames", 23.0, 1.24, "as wanted", "Even; a touch pale at the corners."),
    ("Prop chest", "Ghost’s trunk", 11.0, 1.15, "good enough", "Peaks a little soft: a stiffer mix next time."),
    ("Picture frames", "Cloakroom mirror", 4.0, 1.32, "as wanted", "Like the frames, side by side."),
)
"""From which of the demo's jobs, under which name, how many days ago, what its surfaces took, how it came out."""


class _Painter:
    """Somebody of the crew who writes down what is done."""

    def __init__(self, here: Context, stored: StoredJob, job: Job, at_min: float, rng: random.Random) -> None:
        self.here, self.stored, self.job, self.at, self.rng = here, stored, job, at_min, rng
        self.count = 0

    def note(self, did: Did = "noted", operation: str = "", act: Act | None = None, after_min: float = 1.0) -> None:
        self.at += after_min
        self.count += 1
        noted = EventIn(job=self.stored.id, operation=operation, did=did, at_min=self.at, noted_min=self.at, act=act)
        kept(f"{self.stored.id}-{self.count}", noted, act, "", self.here)

    def batch(self, number: int, took: float, verdict: str, text: str) -> None:
        """Mix, lay and put away one of the job's batches; its surface takes `took` times what is planned."""
        made = self.here.work(self.job)
        batch = made.batches[number]
        pot, mix = f"{self.stored.id}-pot-{number}", f"{batch.id}:mix"
        file = BatchFile("lumso-batch", 4, self.job.name, "the loft’s drawer", batch, KitAnswer((), ()))
        begun = begun_as(Begun("begun", pot, batch.id), self.stored, self.job, file, self.here)
        self.note(act=begun, operation=mix)
        self.note("begun", mix, after_min=0.1)
        poured = 0.0
        for line in lines_of(batch.mix):
            g = round(line.planned_g * self.rng.uniform(0.99, 1.01), 1) or 0.1
            poured += g
            self.note(act=Poured("poured", pot, line.stuff, g, "scale"), operation=mix, after_min=1.5)
        self.note(act=Stirred("stirred", pot), operation=mix)
        self.note(act=Looked("looked", pot, batch.mix.target), operation=mix)
        self.note("done", mix)
        for operation in made.operations:
            if operation.batch == batch.id and operation.kind == "lay":
                self.note("begun", operation.id, after_min=5)
                self.note("done", operation.id, after_min=operation.hands_on_min * self.rng.uniform(0.9, 1.3))
                self.note(operation=operation.id, act=Went("went", 1.0, verdict, text))  # type: ignore[arg-type]
        used = begun.laid_ml * took * self.rng.uniform(0.95, 1.05) + begun.lost_ml
        left = max(poured * (1 - used / batch.mix.volume.value), 0.0)
        self.note(act=Left("left", pot, round(left, 1), "scale", "lid", "paint loft, second shelf"))


def write_log(here: Context, now_min: float) -> None:
    """Write down the crew's last weeks, up to `now_min` (minutes since 1970 UTC), into a workshop just seeded."""
    rng = random.Random("the lantern loft")
    known = {job.name: job for job in demo_jobs()}
    for of, name, days, took, verdict, text in EARLIER:
        job = embed(replace(known[of], name=name), here.catalogue)
        stored = jobs.create(here.db, name, jobfile.to_json(job))
        painter = _Painter(here, stored, job, now_min - days * DAY_MIN, rng)
        for number in range(2):
            painter.batch(number, took, verdict, text)
        jobs.put_away(here.db, stored.id, True)
