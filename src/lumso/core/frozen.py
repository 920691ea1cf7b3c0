"""A batch as it was printed: with what it was measured in, so that it can be mixed again as it was."""

from dataclasses import dataclass
from typing import Literal

from .kit import KitAnswer
from .mixsheet import Batch
from .value import Name, Value


@dataclass(frozen=True)
class BatchFile(Value):
    """A frozen batch: the format of the file and of what the database keeps."""

    format: Literal["lumso-batch"]
    version: Literal[1]
    job: Name
    kit: str
    batch: Batch
    measured: KitAnswer
