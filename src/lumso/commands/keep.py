"""What is kept, on the command line: backups and the way back, a look for damage, everything as a file."""

from pathlib import Path
from typing import Annotated

import typer

from lumso.core.errors import LumsoError

from .parts import Data, data_path, fail


def ask_for_it() -> None:
    """What is written is its owner's alone."""
    from lumso.store import private

    private.ask_for_it()


Kept = Annotated[Path, typer.Argument(help="The file it is, or will be.")]
Revisions = Annotated[bool, typer.Option(help="Every revision of every job too.")]


def backup(file: Kept, data: Data = None) -> None:
    """Write the whole workshop to one file, also while Lumso runs, and open it again to see that it is whole."""
    ask_for_it()
    from lumso.store.archive import write

    try:
        made = write(data_path(data), file)
    except LumsoError as error:
        raise fail(str(error)) from None
    print(f"{file}: {made.jobs} jobs, {file.stat().st_size:,} bytes, opened and found whole.")


def restore(file: Kept, data: Data = None) -> None:
    """Put a backup, or a copy of a database, in the place of the workshop. What was there is kept beside it."""
    ask_for_it()
    from lumso.store.backup import restore as put_back

    path = data_path(data)
    try:
        found, before = put_back(file, path)
    except LumsoError as error:
        raise fail(str(error)) from None
    print(f"{path}: {found.jobs} jobs" + (f", made {found.made_at}" if found.made_at else "") + ".")
    if before:
        print(f"What was there before is kept as {before}.")


def check(data: Data = None) -> None:
    """Say whether all is well with the workshop and this machine: damage, room, backups, who can read it, who is in."""
    from lumso.store.health import health

    wrong = False
    for said in health(data_path(data)):
        wrong = wrong or said.trouble
        typer.echo(f"{'!' if said.trouble else ' '} {said.says}", err=said.trouble)
    if wrong:
        raise typer.Exit(1)


def export(file: Kept, data: Data = None, revisions: Revisions = False) -> None:
    """Write everything the workshop holds as one open JSON file."""
    ask_for_it()
    from lumso.store.database import Database
    from lumso.store.export import everything

    try:
        db = Database(data_path(data))
        try:
            with file.open("w", encoding="utf-8") as out:
                out.writelines(everything(db, revisions))
        finally:
            db.close()
    except OSError as error:
        raise fail(f"{file} cannot be written: {error.strerror}.") from None
    except LumsoError as error:
        raise fail(str(error)) from None
