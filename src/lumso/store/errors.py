"""What can go wrong with the database file.

LumsoError
 └─ StoreError
     ├─ Unwritable       the file cannot be opened or written, and why
     │   └─ NoBackup     what should be restored is none, or damaged
     ├─ Busy             another program holds it
     ├─ NotFound         no such row
     ├─ StaleRevision    the document was changed since it was read
     ├─ InPlace          another has taken the place of what should come back
     ├─ OtherKey         a key of the asker's own was used for something else
     └─ TooLong          a question took longer than anybody waits
"""

from lumso.core.errors import LumsoError


class StoreError(LumsoError):
    """Anything about the database file."""


class Unwritable(StoreError):
    """The file cannot be opened or written."""


class NoBackup(Unwritable):
    """What should be restored is no backup, or damaged."""


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


class OtherKey(StoreError):
    """A key of the asker's own was used for another document."""


class TooLong(StoreError):
    """A question took longer than anybody waits, and was given up."""


class InPlace(StoreError):
    """Another has taken the place of what should come back."""
