"""A batch as it was printed: with what it was measured in, so that it can be mixed again as it was."""

from dataclasses import dataclass
from typing import Literal

from ..mixing.fillings import KitAnswer
from ..value import Name, Value
from .batch import Batch


@dataclass(frozen=True)
class BatchFile(Value):
    """A frozen batch: the format of the file and of what the database keeps."""

    format: Literal["lumso-batch"]
    version: Literal[4]
    job: Name
    kit: str
    batch: Batch
    measured: KitAnswer
    not_measured: str = ""
    """Which sizes were usual ones when it was printed, in words."""
