"""How fast a painter is: the pace of the technique, the painter's own factor, and half of it on turned work."""

from ..book.techniques import Technique
from ..job.job import Job
from ..workshop.workshop import Workshop

TURNED = {"turned-stand", "pedestal"}
"""Kinds of piece that are turned."""
SANDING_M2_PER_H = 4.0


def is_turned(job: Job) -> bool:
    """Whether the job's piece is turned."""
    return job.piece is not None and job.piece.kind in TURNED


def pace_of(technique: Technique, workshop: Workshop, turned: bool) -> float:
    """m² an hour. A factor for the technique goes before the one for all techniques (\"\")."""
    own = workshop.paces.get(technique.slug, workshop.paces.get("", 1.0))
    return technique.pace_m2_per_h * own * (0.5 if turned else 1.0)
