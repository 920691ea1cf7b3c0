"""Lots beside kits, recipes and the shelf: files of before keep all they had; lots are kept, set aside and back."""

import sqlite3
from pathlib import Path

import pytest

from lumso.store import aside, entries
from lumso.store.database import Database, migrate
from lumso.store.errors import NotFound, StaleRevision

LOT = '{"slug": "tin", "item": "matt-paint"}'


def before(path: Path) -> None:
    """A file as the version before had it: its tables without lots."""
    with sqlite3.connect(path) as connection:
        migrate(connection, up_to=9)
        connection.execute(
            "INSERT INTO workshop_entry (kind, slug, document, saved_at, revision) VALUES ('kit', 'mine', '{}', 'x', 7)"
        )
        connection.execute(
            "INSERT INTO set_aside (kind, slug, document, why, at) VALUES ('recipe', 'old', '{}', 'taken out', 'y')"
        )
        connection.execute("UPDATE clock SET workshop = 7")
    connection.close()


def test_a_file_of_before_keeps_its_entries_their_revisions_and_what_was_set_aside(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite3"
    before(path)
    with sqlite3.connect(path) as connection, pytest.raises(sqlite3.IntegrityError):
        connection.execute("INSERT INTO workshop_entry (kind, slug, document, saved_at) VALUES ('lot', 'a', '{}', 'x')")
    connection.close()
    db = Database(path)
    assert {k: (e.document, e.revision) for k, e in entries.every(db).items()} == {("kit", "mine"): ("{}", 7)}
    assert [(k.kind, k.slug, k.why) for k in aside.every(db)] == [("recipe", "old", "taken out")]
    assert entries.save(db, "lot", "tin", 0, LOT) > 7
    db.close()
    again = Database(path)
    assert ("lot", "tin") in entries.names(again)
    again.close()


def test_a_lot_is_kept_by_revision_once_by_its_key_and_comes_back(db: Database) -> None:
    first = entries.save(db, "lot", "tin", 0, LOT, key="tick")
    assert entries.save(db, "lot", "tin", 0, LOT, key="tick") == first  # sent twice, made once
    with pytest.raises(StaleRevision):
        entries.save(db, "lot", "tin", 0, LOT)
    second = entries.save(db, "lot", "tin", first, LOT.replace("matt", "milk"))
    assert second > first
    with pytest.raises(StaleRevision):
        entries.delete(db, "lot", "tin", first)
    entries.delete(db, "lot", "tin", second, key="untick")
    entries.delete(db, "lot", "tin", second, key="untick")
    assert ("lot", "tin") not in entries.names(db)
    (kept,) = [k for k in aside.every(db) if k.kind == "lot"]
    assert "milk-paint" in kept.document
    aside.bring_back(db, kept.id)
    assert ("lot", "tin") in entries.names(db)
    with pytest.raises(NotFound):
        entries.delete(db, "lot", "none")
