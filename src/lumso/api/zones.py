"""A job on the screen, and one zone or layer of it: what most calls that keep nothing are asked with."""

from pydantic import BaseModel, ConfigDict

from .bodies import JobBody


class ZoneIn(BaseModel):
    """A job, and the zone (by id) that is meant."""

    model_config = ConfigDict(extra="forbid")
    job: JobBody
    zone: str


class OffersIn(ZoneIn):
    """A layer of a zone."""

    layer: str
