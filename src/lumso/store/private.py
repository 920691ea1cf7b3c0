"""What Lumso keeps is its owner's alone: its files for nobody else to read, the folders it made for nobody to enter."""

import os
import stat
from collections.abc import Iterator
from pathlib import Path

from . import backup, copies, file, photographs

FILE, FOLDER = 0o600, 0o700


def ask_for_it() -> None:
    """From here on, all that this program makes is its owner's alone."""
    os.umask(0o077)


def folders(path: Path) -> tuple[Path, ...]:
    """The folders Lumso makes beside a database; never the one it lies in."""
    return (backup.folder_of(path), photographs.folder_of(path), path.parent / "tls")


def _ours(path: Path) -> Iterator[tuple[Path, int]]:
    beside = (path, file.wal_of(path), path.with_name(f"{path.name}-shm"), copies.notes_of(path))
    yield from ((one, FILE) for one in beside)
    for copy in copies.files_of(path):
        yield copy, FILE
        yield file.wal_of(copy), FILE
    for folder in folders(path):
        if folder.is_dir():
            yield folder, FOLDER
            yield from ((one, FILE) for one in folder.iterdir() if one.is_file())


def open_to_others(path: Path) -> list[Path]:
    """What of a workshop others on this machine can read or enter."""
    if os.name != "posix":
        return []
    return [one for one, _ in _ours(path) if one.exists() and stat.S_IMODE(one.stat().st_mode) & 0o077]


def close_to_others(path: Path) -> list[str]:
    """Make what is there private; says what cannot be."""
    says: list[str] = []
    if os.name != "posix":
        return says
    for one, mode in _ours(path):
        try:
            if stat.S_IMODE(one.stat().st_mode) & 0o077:
                one.chmod(mode)
        except FileNotFoundError:
            continue
        except OSError as error:
            says.append(f"{one} can be read by others on this machine, and cannot be changed: {error.strerror}.")
    return says
