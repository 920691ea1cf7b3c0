"""What can go wrong with the database file.

LumsoError
 └─ StoreError
     ├─ Unwritable       the file cannot be opened or written, and why
     ├─ Busy             another program holds it
     ├─ NotFound         no such row
     └─ StaleRevision    the document was changed since it was read
"""

from lumso.core.errors import LumsoError


class StoreError(LumsoError):
    """Anything about the database file."""


class Unwritable(StoreError):
    """The file cannot be opened or written."""


class Busy(StoreError):
    """Another program is writing to the file and did not let go in time."""


class NotFound(StoreError):
    """There is no such row."""


class StaleRevision(StoreError):
    """Somebody else saved meanwhile: `head` is what counts now, `read` what the caller had read."""

    def __init__(self, read: int, head: int) -> None:
        self.read, self.head = read, head
        super().__init__(
            f"This was changed elsewhere: you read revision {read}, it is now at revision {head}. "
            "Load it again, or keep yours as a copy."
        )
