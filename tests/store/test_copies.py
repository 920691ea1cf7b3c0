"""What a restore keeps of before: listed, gone after a month unless kept, the last one never; and who can read it."""

import os
import stat
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from lumso.store import backup, copies, jobs, private
from lumso.store.database import Database
from lumso.store.errors import NotFound, OtherKey
from lumso.store.file import wal_of
from lumso.store.keys import Asked

DAY = timedelta(days=1)


@pytest.fixture
def workshop(tmp_path: Path) -> Path:
    """A workshop with three copies of before, of which the oldest has something beside it."""
    path = tmp_path / "w.sqlite3"
    Database(path).close()
    for day in ("20260901", "20261001", "20261101"):
        (tmp_path / f"w-before-{day}-120000.sqlite3").write_bytes(b"copy" * 100)
    wal_of(tmp_path / "w-before-20260901-120000.sqlite3").write_bytes(b"wal" * 100)
    return path


def names(path: Path, now: datetime) -> list[str]:
    return [c.name[9:17] for c in copies.every(path, now)]


def test_a_copy_goes_a_month_after_it_was_first_listed_and_it_is_said_a_week_before(workshop: Path) -> None:
    first = datetime(2026, 11, 24, 9, tzinfo=UTC)
    newest, middle, oldest = copies.every(workshop, first)
    assert (newest.goes_on, middle.goes_on, oldest.goes_on) == ("", "2026-12-24", "2026-12-24")
    assert not oldest.soon
    assert oldest.bytes == 700, "with what stands beside it"
    assert [c.soon for c in copies.every(workshop, first + 23 * DAY)] == [False, False, False]
    assert [c.soon for c in copies.every(workshop, first + 24 * DAY)] == [False, True, True]
    copies.keep(workshop, middle.name)
    assert copies.sweep(workshop, first + 30 * DAY) == 0
    assert copies.sweep(workshop, first + 31 * DAY) == 1
    assert names(workshop, first + 400 * DAY) == ["20261101", "20261001"], "the last one and the kept one stay"
    assert not wal_of(workshop.with_name(oldest.name)).exists(), "it goes with what stands beside it"
    copies.keep(workshop, middle.name, kept=False)
    assert copies.sweep(workshop, first + 400 * DAY) == 1
    assert names(workshop, first + 400 * DAY) == ["20261101"]


def test_of_two_made_within_a_second_the_later_is_the_last(workshop: Path) -> None:
    for more in ("", "-1", "-10", "-2"):
        (workshop.parent / f"w-before-20261120-120000{more}.sqlite3").write_bytes(b"copy")
    assert [c.name[24:-8] for c in copies.every(workshop)][:4] == ["-10", "-2", "-1", ""]


def test_a_name_from_elsewhere_is_no_copy(workshop: Path) -> None:
    for name in ("w.sqlite3", "../w-before-20260901-120000.sqlite3", "w-before-nothing.sqlite3"):
        with pytest.raises(NotFound):
            copies.keep(workshop, name)


@pytest.mark.parametrize("rotten", ["", "[]", '{"w-before-20260901-120000.sqlite3": 3}', "{"])
def test_a_rotten_note_beside_them_loses_none(workshop: Path, rotten: str) -> None:
    copies.notes_of(workshop).write_text(rotten, encoding="utf-8")
    assert len(copies.every(workshop)) == 3
    assert copies.sweep(workshop) == 0


def test_a_copy_can_be_gone_back_to(db: Database) -> None:
    jobs.create(db, "First", "{}")
    kept = backup.make(db.path)
    jobs.create(db, "Second", "{}")
    backup.restore_running(db, backup.named(db.path, kept.name))
    (copy,) = copies.every(db.path)
    assert jobs.page(db, 1).count == 1
    backup.restore_running(db, copies.named(db.path, copy.name))
    assert jobs.page(db, 1).count == 2


def test_what_a_killed_server_left_half_done_goes_after_a_day(tmp_path: Path) -> None:
    path = tmp_path / "w.sqlite3"
    left = [tmp_path / ".lumso-abc.photo", backup.folder_of(path) / ".lumso-xyz"]
    left[1].mkdir(parents=True)
    (left[1] / "packed").write_bytes(b"half")
    left[0].write_bytes(b"half")
    mine = tmp_path / "mine.photo"
    mine.write_bytes(b"whole")
    assert backup.sweep_half_done(path) == 0, "it may just be being made"
    for one in (*left, mine):
        os.utime(one, (0, 0))
    assert backup.sweep_half_done(path) == 2
    assert [one.exists() for one in (*left, mine)] == [False, False, True]


def test_what_lumso_keeps_is_for_nobody_else_to_read(tmp_path: Path) -> None:
    path = tmp_path / "shared" / "w.sqlite3"
    path.parent.mkdir(mode=0o755)
    before = os.umask(0o022)
    try:
        db = Database(path)
        jobs.create(db, "One", "{}")
        backup.make(path)
        opened = {p.name for p in private.open_to_others(path)}
        assert {"w.sqlite3", "w-backups"} <= opened
        assert private.close_to_others(path) == []
        assert private.open_to_others(path) == []
        assert stat.S_IMODE(path.parent.stat().st_mode) == 0o755, "the folder that was given is its owner's matter"
        private.ask_for_it()
        made = backup.folder_of(path) / backup.make(path).name
        assert stat.S_IMODE(made.stat().st_mode) == 0o600
        db.close()
    finally:
        os.umask(before)


def test_under_one_key_another_body_is_refused_and_the_same_is_made_once(db: Database) -> None:
    one, other = Asked.of("key", b'{"a": 1}'), Asked.of("key", b'{"a": 2}')
    made = jobs.create(db, "One", "{}", one)
    assert jobs.create(db, "One", "{}", Asked.of("key", b'{"a": 1}')).id == made.id
    with pytest.raises(OtherKey, match="Something else was sent"):
        jobs.create(db, "One", "{}", other)
    saved = jobs.save(db, made.id, 1, "Two", "{}", Asked.of("save", b"two"))
    assert jobs.save(db, made.id, 1, "Two", "{}", Asked.of("save", b"two")).revision == saved.revision
    with pytest.raises(OtherKey):
        jobs.save(db, made.id, 1, "Three", "{}", Asked.of("save", b"three"))
    with db.write() as connection:
        connection.execute("UPDATE answered SET sent = NULL")
    assert jobs.create(db, "One", "{}", other).id == made.id, "keys from before carry no hash, and pass"
    assert jobs.page(db, 9).count == 1
