"""Nothing rotten spreads: a backup that cannot be read is one line of the list, and hinders nothing else."""

import json
import random
import sqlite3
import zipfile
from contextlib import closing
from hashlib import sha256
from pathlib import Path

import pytest

from lumso.store import archive as archives
from lumso.store import backup, jobs, photographs
from lumso.store.database import Database
from lumso.store.errors import NoBackup, StoreError
from lumso.store.keeper import Keeper
from tests.counts import count


def kept(tmp_path: Path) -> tuple[Database, Path]:
    """A workshop with a job, and a backup of it."""
    db = Database(tmp_path / "x.sqlite3")
    jobs.create(db, "Rack", "{}")
    return db, backup.folder_of(db.path) / backup.make(db.path).name


def repacked(archive: Path, manifest: str | None = None, database: bytes | None = None) -> None:
    """The same archive with another manifest, or another database."""
    with zipfile.ZipFile(archive) as held:
        said, inside = held.read(archives.MANIFEST), held.read(archives.DATABASE)
    with zipfile.ZipFile(archive, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr(archives.MANIFEST, said if manifest is None else manifest)
        made.writestr(archives.DATABASE, inside if database is None else database)


def test_any_flipped_bit_of_what_tells_of_a_backup_is_read_or_refused_in_words(tmp_path: Path) -> None:
    db, archive = kept(tmp_path)
    whole = archive.read_bytes()
    with zipfile.ZipFile(archive) as held:
        directory = held.start_dir
        first = held.getinfo(archives.MANIFEST).compress_size + 60
    places = [*range(first), *range(directory, len(whole))]
    luck = random.Random("bits")
    for _ in range(count("flipped bits of a backup")):
        at, bit = luck.choice(places), luck.randrange(8)
        archive.write_bytes(whole[:at] + bytes([whole[at] ^ 1 << bit]) + whole[at + 1 :])
        said = ""
        try:
            archives.read(archive)
        except NoBackup as error:
            said = str(error)
        assert said == "" or archive.name in said
        assert [b.name for b in backup.every(db.path)] == [archive.name]
    db.close()


@pytest.mark.parametrize(
    "manifest",
    [
        "{",
        "[]",
        "null",
        '{"format": "lumso-archive", "version": 1, "made_at": "x", "rows": [], "sha256": "", "bytes": 1}',
        '{"format": "lumso-archive", "version": 1e400, "made_at": "x", "rows": {}, "sha256": "", "bytes": 1}',
        '{"format": "lumso-archive", "version": 1, "made_at": "x", "rows": {"job": 1e400}, "sha256": "", "bytes": 1}',
        '{"format": "lumso-archive", "version": 1, "made_at": [], "rows": {"job": "many"}, "sha256": 1, "bytes": -5}',
        "[" * 40_000 + "]" * 40_000,
    ],
)
def test_a_manifest_that_says_nonsense_is_refused_in_words_and_hinders_no_other(tmp_path: Path, manifest: str) -> None:
    db, archive = kept(tmp_path)
    repacked(archive, manifest)
    with pytest.raises(NoBackup, match=archive.name):
        archives.read(archive)
    with pytest.raises(StoreError):
        backup.restore_running(db, archive)
    made = backup.make(db.path)
    listed = {b.name: b for b in backup.every(db.path)}
    assert listed[archive.name].says.startswith(archive.name)
    assert listed[made.name].says == ""
    assert backup.named(db.path, made.name).exists()
    assert backup.named(db.path, archive.name).read_bytes(), "what cannot be read can still be taken away as a file"
    assert jobs.page(db, 1).count == 1
    db.close()


def test_what_cannot_be_read_is_kept_as_it_is_and_is_no_backup_of_today(tmp_path: Path) -> None:
    db, archive = kept(tmp_path)
    archive.write_bytes(b"PK" + b"\x00" * 50)
    assert backup.due(db.path)
    for _ in range(5):
        backup.make(db.path)
    assert archive.exists()
    db.close()


def test_the_keeper_outlives_anything_and_says_when_there_was_no_copy_for_long(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    db, _ = kept(tmp_path)
    assert backup.overdue_days(backup.every(db.path)) == 0

    def breaks(path: Path) -> backup.Backup:
        raise RecursionError("deep")

    monkeypatch.setattr(backup, "due", lambda path: True)
    monkeypatch.setattr(backup, "make", breaks)
    keeper = Keeper(db)
    for _ in range(2):
        keeper.look()
        assert keeper.hindered
    old = backup.folder_of(db.path)
    for archive in old.glob("*"):
        archive.rename(old / f"20200101{archive.name[8:]}")
    assert backup.overdue_days(backup.every(db.path)) > 1000
    monkeypatch.undo()
    keeper.look()
    assert not keeper.hindered
    db.close()


def test_a_database_without_a_table_it_must_have_is_refused(tmp_path: Path) -> None:
    db, archive = kept(tmp_path)
    with zipfile.ZipFile(archive) as held:
        held.extract(archives.DATABASE, tmp_path)
    spoilt = tmp_path / archives.DATABASE
    with closing(sqlite3.connect(spoilt)) as connection:
        connection.execute("DROP TABLE job_revision")
    for given in (spoilt, tmp_path / "mine.lumso.zip"):
        if given.suffix == ".zip":
            with zipfile.ZipFile(given, "w") as made:
                content = spoilt.read_bytes()
                said = {"format": archives.FORMAT, "version": 1, "made_at": "now", "rows": {}, "bytes": len(content)}
                made.writestr(archives.MANIFEST, json.dumps({**said, "sha256": sha256(content).hexdigest()}))
                made.write(spoilt, archives.DATABASE)
        with pytest.raises(NoBackup, match=rf"{given.name}.*job_revision"):
            backup.restore_running(db, given)
    assert jobs.page(db, 1).count == 1
    db.close()


def test_a_bomb_is_refused_at_what_it_says_and_counted_when_it_lies(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    db, archive = kept(tmp_path)
    with zipfile.ZipFile(archive) as held:
        said = json.loads(held.read(archives.MANIFEST))
    repacked(archive, json.dumps({**said, "bytes": 10**13}))
    with pytest.raises(NoBackup, match="too large"):
        backup.restore_running(db, archive)
    repacked(archive, json.dumps({**said, "bytes": 4096}), b"\x00" * 50_000_000)
    with pytest.raises(NoBackup, match=rf"{archive.name} is damaged"):
        backup.restore_running(db, archive)
    repacked(archive, json.dumps(said))
    monkeypatch.setattr(archives, "free_bytes", lambda folder: 500 * 1024**2 + 10)
    with pytest.raises(StoreError, match="disk"):
        backup.restore_running(db, archive)
    assert jobs.page(db, 1).count == 1
    db.close()


def test_a_rotten_photograph_takes_nothing_else_of_a_restore_with_it(tmp_path: Path) -> None:
    db, archive = kept(tmp_path)
    good, bad = (sha256(content).hexdigest() for content in (b"good", b"bad"))
    with zipfile.ZipFile(archive, "a", zipfile.ZIP_STORED) as made:
        made.writestr(f"photographs/{bad}.jpg", b"bad")
        made.writestr(f"photographs/{good}.jpg", b"good")
    whole = archive.read_bytes()
    at = whole.index(bad.encode()) + len(bad) + 4
    archive.write_bytes(whole[:at] + b"\xff" + whole[at + 1 :])
    backup.restore_running(db, archive)
    assert [f.read_bytes() for f in photographs.folder_of(db.path).iterdir()] == [b"good"]
    assert jobs.page(db, 1).count == 1
    db.close()
