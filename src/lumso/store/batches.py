"""Batches as they were printed or begun: frozen, each with a code that can be read aloud."""

import secrets
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass

from .database import Database, now
from .errors import NotFound
from .ids import new_id

CONSONANTS, VOWELS = "bdfgklmnprstvz", "aeiou"


@dataclass(frozen=True)
class FrozenBatch:
    """A frozen batch as the database holds it."""

    id: str
    code: str
    job_id: str
    revision: int
    document: str
    frozen_at: str


def new_code() -> str:
    """Two syllables and two digits, such as "mofa-27": half a million that cannot be misheard."""
    syllables = "".join(secrets.choice(CONSONANTS) + secrets.choice(VOWELS) for _ in range(2))
    return f"{syllables}-{secrets.randbelow(90) + 10}"


def _frozen(row: sqlite3.Row) -> FrozenBatch:
    return FrozenBatch(row["id"], row["code"], row["job_id"], row["revision"], row["document"], row["frozen_at"])


def freeze(db: Database, job_id: str, revision: int, batches: Sequence[tuple[str, str]]) -> list[FrozenBatch]:
    """Freeze batches (id on the sheet, document) of a job at a revision.

    The same batch frozen again keeps its code. Raises NotFound for a job that is not there.
    """
    made = []
    with db.write() as connection:
        if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
            raise NotFound(f"There is no job {job_id!r}.")
        for batch, document in batches:
            same = (job_id, revision, batch, document)
            where = "job_id = ? AND revision = ? AND batch = ? AND document = ?"
            row = connection.execute(f"SELECT * FROM frozen_batch WHERE {where}", same).fetchone()
            while row is None:
                connection.execute(
                    "INSERT OR IGNORE INTO frozen_batch VALUES (?, ?, ?, ?, ?, ?, ?)",
                    (new_id(), new_code(), *same, now()),
                )  # ignored when the code is taken: another is drawn
                row = connection.execute(f"SELECT * FROM frozen_batch WHERE {where}", same).fetchone()
            made.append(_frozen(row))
    return made


def by_code(db: Database, code: str) -> FrozenBatch:
    """The batch with a code, however it is written: "MOFA 27", "mofa27". Raises NotFound."""
    plain = "".join(c for c in code.lower() if c.isalnum())
    with db.read() as connection:
        row = connection.execute("SELECT * FROM frozen_batch WHERE replace(code, '-', '') = ?", (plain,)).fetchone()
    if row is None:
        raise NotFound(f"There is no batch {code!r}.")
    return _frozen(row)
