"""How fast a painter is: the pace of the technique, the painter's own factor, and half of it on turned work."""

from ..book.techniques import Technique
from ..job.job import Job
from ..piece.kinds import KINDS
from ..workshop.workshop import Workshop


def is_turned(job: Job) -> bool:
    """Whether the job's piece is turned on a lathe."""
    return job.piece is not None and job.piece.kind in KINDS and KINDS[job.piece.kind].turned


def pace_of(technique: Technique, workshop: Workshop, turned: bool) -> float:
    """m² an hour. A factor for the technique goes before the one for all techniques (\"\")."""
    own = workshop.paces.get(technique.slug, workshop.paces.get("", 1.0))
    return technique.pace_m2_per_h * own * (0.5 if turned else 1.0)


def minutes_for(area_m2: float, pace_m2_per_h: float, least_min: float) -> float:
    """Minutes of work on an area at a pace, never under `least_min`."""
    return max(area_m2 / pace_m2_per_h * 60, least_min)
