"""The database file: migrations from the first version up, and files that cannot be used."""

import os
import sqlite3
from pathlib import Path

import pytest

from lumso.store import settings
from lumso.store.database import Database, applied, migrate, migrations
from lumso.store.errors import Busy, Unwritable


def test_migrations_are_numbered_without_gaps_and_applied_once(tmp_path: Path) -> None:
    numbers = [number for number, _, _ in migrations()]
    assert numbers == list(range(1, len(numbers) + 1))
    connection = sqlite3.connect(tmp_path / "x.sqlite3", isolation_level=None)
    assert applied(connection) == []
    assert [n for up_to in numbers for n in migrate(connection, up_to)] == numbers
    assert migrate(connection) == []
    assert applied(connection) == numbers
    connection.close()


def test_a_migration_that_fails_leaves_nothing_of_itself(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    bad = [(1, "0001_bad.sql", "CREATE TABLE half (x); CREATE TABLE half (x);")]
    monkeypatch.setattr("lumso.store.database.migrations", lambda: bad)
    with pytest.raises(Exception, match="half"):
        Database(tmp_path / "x.sqlite3")
    connection = sqlite3.connect(tmp_path / "x.sqlite3")
    assert connection.execute("SELECT count(*) FROM sqlite_master").fetchone()[0] == 0
    connection.close()


def test_a_file_of_a_newer_lumso_is_refused(tmp_path: Path) -> None:
    db = Database(tmp_path / "x.sqlite3")
    with db.write() as connection:
        connection.execute("INSERT INTO migration VALUES (9999, 'later', 'then')")
    db.close()
    with pytest.raises(Unwritable, match="newer Lumso"):
        Database(tmp_path / "x.sqlite3")


def test_a_file_that_is_no_database_is_refused_by_name(tmp_path: Path) -> None:
    path = tmp_path / "notes.txt"
    path.write_text("milk, eggs, chalk " * 100)
    with pytest.raises(Unwritable, match=r"notes\.txt is not a Lumso database"):
        Database(path)


def test_a_folder_in_the_way_is_refused(tmp_path: Path) -> None:
    with pytest.raises(Unwritable, match="cannot be opened"):
        Database(tmp_path)


def test_a_locked_file_says_who_holds_it(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("lumso.store.database.BUSY_MS", 50)
    db = Database(tmp_path / "x.sqlite3")
    other = sqlite3.connect(db.path, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with pytest.raises(Busy, match="in use by another program"):
        settings.put(db, "workshop", "{}")
    other.execute("ROLLBACK")
    settings.put(db, "workshop", "{}")
    assert settings.get(db, "workshop").document == "{}"
    other.close()
    db.close()


def test_a_read_only_file_is_refused_with_what_to_do(tmp_path: Path) -> None:
    path = tmp_path / "x.sqlite3"
    db = Database(path)
    db._writer.execute("PRAGMA query_only = ON")  # what a read-only file answers, also for root
    with pytest.raises(Unwritable, match="read-only"):
        settings.put(db, "workshop", "{}")
    db.close()
    if os.geteuid() != 0:
        path.chmod(0o400)
        tmp_path.chmod(0o500)
        with pytest.raises(Unwritable):
            Database(path)


def test_a_transaction_that_raises_leaves_nothing(db: Database) -> None:
    def half_done() -> None:
        with db.write() as connection:
            connection.execute("INSERT INTO setting VALUES ('a', 'b', 'c', 1)")
            raise RuntimeError("the lid fell in")

    with pytest.raises(RuntimeError):
        half_done()
    assert settings.get(db, "a").document is None
