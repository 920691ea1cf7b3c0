"""What stands at the place of a database: foreign, cut short, copied in use, replaced; and backups of it."""

import json
import os
import shutil
import sqlite3
import subprocess
import sys
import zipfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from threading import Event, Thread

import pytest

from lumso.store import archive as archives
from lumso.store import aside, backup, batches, entries, jobs, settings
from lumso.store.database import Database, migrations
from lumso.store.errors import Busy, NotFound, TooLong, Unwritable
from lumso.store.export import everything
from lumso.store.file import thorough, wal_of
from lumso.store.functions import teach


def as_a_kill_leaves_it(db: Database, to: Path) -> Path:
    """The file and what stands beside it, as they are in the midst of use."""
    to.parent.mkdir(exist_ok=True)
    shutil.copy(db.path, to)
    shutil.copy(wal_of(db.path), wal_of(to))
    return to


def filled(path: Path, count: int = 40) -> Database:
    db = Database(path)
    for i in range(count):
        jobs.create(db, f"Job {i}", "{" + "x" * 2000 + "}")
    settings.put(db, "workshop", "{}")
    return db


def rows(path: Path) -> list[str]:
    with closing(sqlite3.connect(path)) as connection:
        return list(connection.iterdump())


def test_a_database_of_another_program_is_not_touched(tmp_path: Path) -> None:
    for name, ours in (("other", 0), ("theirs", 77)):
        path = tmp_path / f"{name}.sqlite3"
        with closing(sqlite3.connect(path)) as connection:
            connection.execute(f"PRAGMA application_id = {ours}")
            connection.execute("CREATE TABLE recipes (x)")
        before = path.read_bytes()
        with pytest.raises(Unwritable, match="not a Lumso database"):
            Database(path)
        assert path.read_bytes() == before
        assert [p.name for p in tmp_path.iterdir() if p.stem == path.stem] == [path.name]


@pytest.mark.parametrize("short", [1, 4096, 50_000])
def test_a_file_that_was_cut_short_is_not_touched(tmp_path: Path, short: int) -> None:
    path = tmp_path / "x.sqlite3"
    filled(path).close()
    whole = path.read_bytes()
    path.write_bytes(whole[:-short])
    with pytest.raises(Unwritable, match=r"is damaged.*restore"):
        Database(path)
    assert path.read_bytes() == whole[:-short]


def test_a_page_that_was_written_over_is_found_at_the_start(tmp_path: Path) -> None:
    path = tmp_path / "x.sqlite3"
    filled(path).close()
    torn = bytearray(path.read_bytes())
    torn[4096 * 3 : 4096 * 6] = os.urandom(4096 * 3)
    path.write_bytes(torn)
    with pytest.raises(Unwritable, match="is damaged"):
        Database(path)


def test_a_copy_made_in_the_midst_of_use_lacks_what_stands_beside_it_and_says_so(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3")
    alone, both = tmp_path / "alone.sqlite3", tmp_path / "both.sqlite3"
    shutil.copy(db.path, alone)
    shutil.copy(db.path, both)
    shutil.copy(wal_of(db.path), wal_of(both))
    db.close()
    before = alone.read_bytes()
    taken = Database(alone)
    assert "what was saved after" in taken.trouble
    (aside,) = tmp_path.glob("alone-before-*.sqlite3")
    assert aside.name in taken.trouble, "the way back"
    assert aside.read_bytes() == before
    taken.close()
    second = Database(alone)
    assert second.trouble == "", "said once: from there on it was closed"
    second.close()
    again = Database(both)
    assert (again.trouble, jobs.page(again, 1).count) == ("", 40)
    again.close()


def test_after_a_power_cut_another_program_may_have_taken_up_what_stood_beside_it(tmp_path: Path) -> None:
    """Opened once with any SQLite tool, nothing is missing: it is opened, and said that nobody can tell."""
    db = filled(tmp_path / "x.sqlite3")
    cut = as_a_kill_leaves_it(db, tmp_path / "cut.sqlite3")
    db.close()
    with closing(sqlite3.connect(cut)) as tool:
        assert tool.execute("SELECT count(*) FROM job").fetchone()[0] == 40
        tool.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    assert not wal_of(cut).exists()
    opened = Database(cut)
    assert jobs.page(opened, 1).count == 40
    assert "If another program took it up, nothing is missing" in opened.trouble
    opened.close()


def test_a_newer_file_that_was_not_closed_is_refused_and_nothing_of_it_is_touched(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3")
    with db.write() as connection:
        connection.execute("INSERT INTO migration VALUES (9999, '9999_later.sql', 'x')")
    newer = as_a_kill_leaves_it(db, tmp_path / "newer" / "n.sqlite3")
    db.close()
    before = {p.name: p.read_bytes() for p in newer.parent.iterdir()}
    for _ in range(2):
        with pytest.raises(Unwritable, match="newer Lumso"):
            Database(newer)
    assert {p.name: p.read_bytes() for p in newer.parent.iterdir()} == before


FULL = """
import resource, sys
from pathlib import Path
from lumso.store import export, jobs
from lumso.store.database import Database
resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))  # not a byte can be written to any file
for _ in range(2):
    db = Database(Path(sys.argv[1]))
    print(db.frozen, jobs.page(db, 1).count, sum(map(len, export.everything(db))) > 1000)
    print(db.trouble)
    try:
        jobs.create(db, "Lost", "{}")
    except Exception as error:
        print(type(error).__name__, error)
    db.close()
"""


def test_on_a_full_disk_after_a_crash_all_is_read_and_nothing_is_written(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3")
    crashed = as_a_kill_leaves_it(db, tmp_path / "crashed.sqlite3")
    db.close()
    before = crashed.read_bytes(), wal_of(crashed).read_bytes()
    found = subprocess.run([sys.executable, "-c", FULL, str(crashed)], capture_output=True, text=True, check=False)
    assert found.stderr == ""
    lines = found.stdout.splitlines()
    assert lines[0] == lines[3] == "True 40 True"
    assert "disk is full" in lines[1]
    assert lines[2].startswith("Unwritable The disk is full")
    assert (crashed.read_bytes(), wal_of(crashed).read_bytes()) == before
    again = Database(crashed)
    assert (again.frozen, again.trouble, jobs.page(again, 1).count) == (False, "", 40)
    again.close()


def test_a_copy_made_after_it_was_closed_needs_nothing_beside_it(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3")
    db.close()
    shutil.copy(db.path, tmp_path / "copy.sqlite3")
    copy = Database(tmp_path / "copy.sqlite3")
    assert jobs.page(copy, 1).count == 40
    copy.close()


def test_a_database_that_was_killed_opens_again(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3")
    as_a_kill_leaves_it(db, tmp_path / "killed.sqlite3")
    db.close()
    for _ in range(2):
        killed = Database(tmp_path / "killed.sqlite3")
        assert jobs.page(killed, 1).count == 40
        killed.close()


@pytest.mark.parametrize("fate", ["deleted", "replaced"])
def test_a_file_gone_or_replaced_while_running_is_refused_loudly(tmp_path: Path, fate: str) -> None:
    db = filled(tmp_path / "x.sqlite3", 1)
    db.path.rename(tmp_path / "elsewhere.sqlite3")
    if fate == "replaced":
        shutil.copy(tmp_path / "elsewhere.sqlite3", db.path)
    with pytest.raises(Unwritable, match="deleted, moved or replaced"):
        jobs.create(db, "Lost", "{}")
    with pytest.raises(Unwritable, match="deleted, moved or replaced"):
        jobs.page(db, 99)
    db.path.unlink(missing_ok=True)
    (tmp_path / "elsewhere.sqlite3").rename(db.path)
    assert jobs.create(db, "Kept", "{}").revision == 1
    db.close()


def test_a_question_that_nobody_waits_for_is_given_up(db: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("lumso.store.database.LONGEST_READ_S", 0.05)
    endless = "WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT count(*) FROM n"
    with pytest.raises(TooLong), db.read() as connection:
        connection.execute(endless).fetchone()
    assert jobs.page(db, 99).jobs == ()


def test_a_backup_holds_every_row_and_comes_back_on_a_fresh_machine(tmp_path: Path) -> None:
    db = filled(tmp_path / "old" / "x.sqlite3")
    entries.put(db, [("kit", "a", "1"), ("kit", "b", "1")])
    entries.delete(db, "kit", "b")
    made = archives.write(db.path, tmp_path / "kept.lumso.zip")  # in the midst of use
    assert made.jobs == 40
    found, before = backup.restore(tmp_path / "kept.lumso.zip", tmp_path / "new" / "y.sqlite3")
    assert (found.jobs, before) == (40, None)
    db.close()
    assert rows(tmp_path / "new" / "y.sqlite3") == rows(db.path)
    assert len(rows(db.path)) > 90
    assert [p.name for p in (tmp_path / "new").iterdir()] == ["y.sqlite3"], "nothing is left lying about"


def test_a_restore_keeps_what_was_there(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3", 2)
    archives.write(db.path, tmp_path / "kept.zip")
    jobs.create(db, "Since", "{}")
    with pytest.raises(Busy, match="Stop Lumso first"):
        backup.restore(tmp_path / "kept.zip", db.path)
    db.close()
    there = db.path.read_bytes()
    _, before = backup.restore(tmp_path / "kept.zip", db.path)
    assert before
    assert before.read_bytes() == there
    again = Database(db.path)
    assert jobs.page(again, 1).count == 2
    again.close()


def test_a_running_lumso_goes_back_and_says_of_nothing_that_it_is_as_it_was(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    db = filled(tmp_path / "x.sqlite3", 2)
    archives.write(db.path, tmp_path / "kept.zip")
    entries.put(db, [("kit", "a", "1")])
    state = db.version()
    read: list[int] = []

    def reads() -> None:  # meanwhile, of what was there before, and is waited for
        with db.read() as connection:
            begun.set()
            waited_for.wait()
            read.append(connection.execute("SELECT count(*) FROM workshop_entry").fetchone()[0])

    def waits(so: Callable[[], bool], timeout: float | None = None) -> bool:
        waited_for.set()
        return wait_for(so, timeout)

    begun, waited_for = Event(), Event()
    wait_for = db._nobody.wait_for
    monkeypatch.setattr(db._nobody, "wait_for", waits)
    reader = Thread(target=reads)
    reader.start()
    begun.wait()
    _, before = backup.restore_running(db, tmp_path / "kept.zip")
    assert read == [1]
    reader.join()
    assert before
    assert entries.every(db) == {}
    assert db.version() > state, "what was read before is not taken for what is there now"
    jobs.create(db, "Goes on", "{}")
    assert jobs.page(db, 1).count == 3
    db.close()
    assert ["VALUES('kit'" in "".join(rows(path)) for path in (before, db.path)] == [True, False]


def test_a_backup_that_is_none_or_damaged_changes_nothing(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3", 20)
    good = tmp_path / "good.zip"
    archives.write(db.path, good)
    db.close()
    there = db.path.read_bytes()
    (tmp_path / "text.zip").write_text("not an archive")
    (tmp_path / "short.zip").write_bytes(good.read_bytes()[:-200])
    torn = bytearray(good.read_bytes())
    torn[len(torn) // 2] ^= 0xFF
    (tmp_path / "torn.zip").write_bytes(torn)
    with zipfile.ZipFile(good) as archive, zipfile.ZipFile(tmp_path / "other.zip", "w") as other:
        other.writestr("manifest.json", archive.read("manifest.json"))
        other.writestr("workshop.sqlite3", archive.read("workshop.sqlite3")[:-4096] + bytes(4096))
    with zipfile.ZipFile(good) as archive, zipfile.ZipFile(tmp_path / "newer.zip", "w") as newer:
        newer.writestr("manifest.json", json.dumps({**json.loads(archive.read("manifest.json")), "version": 9}))
        newer.writestr("workshop.sqlite3", archive.read("workshop.sqlite3"))
    another = filled(tmp_path / "another.sqlite3", 1)  # whole and ours, but not what was put in
    another.close()
    with zipfile.ZipFile(good) as archive, zipfile.ZipFile(tmp_path / "swapped.zip", "w") as swapped:
        swapped.writestr("manifest.json", archive.read("manifest.json"))
        swapped.write(another.path, "workshop.sqlite3")
    for name in ("text", "short", "torn", "other", "swapped", "newer", "missing"):
        with pytest.raises(Unwritable):
            backup.restore(tmp_path / f"{name}.zip", db.path)
        assert db.path.read_bytes() == there
    assert {p.suffix for p in tmp_path.iterdir()} == {".zip", ".sqlite3"}


def test_a_backup_of_an_earlier_lumso_comes_back_and_is_brought_up_to_date(tmp_path: Path) -> None:
    """A workshop as the version before kept it: a colour that is none, settings set aside, a printed batch."""
    old = tmp_path / "old.sqlite3"
    item = '{"slug": "own-1", "own": {"name": "Odd", "hex": "url(http://paint.example/x)"}}'
    wide = '{"slug": "own-2", "own": {"name": "Short", "hex": "#f0a"}, "note": "say \\"hex\\": \\"red\\""}'
    with closing(sqlite3.connect(old, isolation_level=None)) as connection:
        teach(connection)
        for number, name, sql in migrations():
            if number < 4:
                connection.executescript(
                    "CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY, name TEXT NOT NULL, "
                    f"applied_at TEXT NOT NULL) STRICT; INSERT INTO migration VALUES ({number}, '{name}', 'then');{sql}"
                )
        for kind, slug, document in (("shelf", "own-1", item), ("shelf", "own-2", wide), ("kit", "k", '{"hex": "x"}')):
            connection.execute("INSERT INTO workshop_entry VALUES (?, ?, ?, 'then')", (kind, slug, document))
        connection.execute("INSERT INTO setting VALUES ('better, set aside 2026', '{7}', 'then')")
        for i, opened in (("b", "2026-01-02"), ("a", "2026-01-03")):
            connection.execute("INSERT INTO job VALUES (?, 1, 'then', ?, 0)", (i, opened))
            connection.execute("INSERT INTO job_revision VALUES (?, 1, NULL, ?, '{}', 'then')", (i, i))
        connection.execute("INSERT INTO frozen_batch VALUES ('f', 'mofa-27', 'a', 1, 'b', '{}', 'then')")
    assert backup.pending(old)
    archives.write(old, tmp_path / "old.zip")
    backup.restore(tmp_path / "old.zip", tmp_path / "new.sqlite3")
    db = Database(tmp_path / "new.sqlite3")
    held = {slug: e.document for (_, slug), e in entries.every(db).items()}
    assert held["own-1"] == item.replace("url(http://paint.example/x)", "#808080")
    assert held["own-2"] == wide.replace("#f0a", "#ff00aa"), "and no other word of it"
    assert held["k"] == '{"hex": "x"}'
    assert {(a.kind, a.slug, a.document) for a in aside.every(db)} == {
        ("shelf", "own-1", item),
        ("shelf", "own-2", wide),
        ("setting", "better", "{7}"),
    }
    assert [j.id for j in jobs.page(db, 99).jobs] == ["a", "b"]
    jobs.create(db, "New", "{}")
    assert [j.name for j in jobs.page(db, 9).jobs] == ["New", "a", "b"]
    assert batches.by_code(db, "mofa 27").job_id == "a"
    db.close()
    assert not backup.pending(db.path)
    assert thorough(db.path) == []


def test_backups_that_make_themselves_are_due_daily_and_let_go_of_by_age(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3", 1)
    assert backup.due(db.path)
    made = backup.make(db.path)
    assert not backup.due(db.path)
    assert [b.name for b in backup.every(db.path)] == [made.name]
    assert archives.read(backup.named(db.path, made.name)).jobs == 1
    for bad in ("nope", "../x.sqlite3", f"../x-backups/{made.name}"):
        with pytest.raises(NotFound):
            backup.named(db.path, bad)
    old = backup.folder_of(db.path) / made.name.replace(made.name[:8], "20200101")
    shutil.copy(backup.named(db.path, made.name), old)
    (backup.folder_of(db.path) / made.name).rename(old.with_name(f"20200102-000000{backup.SUFFIX}"))
    assert backup.due(db.path), "the newest is not of today"
    db.close()


def test_of_many_backups_the_last_days_and_weeks_are_kept() -> None:
    names = [f"2026{month:02}{day:02}-120000-000.lumso.zip" for month in (9, 10, 11) for day in range(1, 29)]
    names += [*(f"20261128-1{hour}0000-000.lumso.zip" for hour in (3, 4, 5)), "a note.txt"]
    kept = sorted(set(names) - set(backup.outdated(names)) - {"a note.txt"})
    assert kept[-3:] == [f"20261128-1{hour}0000-000.lumso.zip" for hour in (3, 4, 5)]
    days = [n[:8] for n in kept]
    assert {"20261128", "20261127", "20261126", "20261125", "20261124", "20261123", "20261122"} <= set(days)
    assert "20261121" not in days
    assert days[0] == "20261011", "a Sunday: the newest of the eighth week back"
    assert len(kept) == 3 + 6 + 6
    assert "a note.txt" not in backup.outdated(names)
    assert backup.outdated(kept) == []


def test_everything_can_be_had_as_one_open_document(tmp_path: Path) -> None:
    db = filled(tmp_path / "x.sqlite3", 0)
    job = jobs.create(db, "Rack", '{"name": "Rack"}')
    jobs.save(db, job.id, 1, "Rack", '{"name": "Rack", "zones": []}')
    jobs.put_away(db, job.id, away=True)
    entries.put(db, [("kit", "a", '{"odd": "é"}'), ("kit", "torn", "{")])
    said = json.loads("".join(everything(db)))
    assert (said["format"], said["version"], "revisions" in said) == ("lumso-everything", 1, False)
    assert [(j["put_away"], j["revision"], j["document"]) for j in said["jobs"]] == [
        (1, 2, {"name": "Rack", "zones": []})
    ]
    assert [e["document"] for e in said["entries"]] == [{"odd": "é"}, "{"]
    assert said["settings"][0]["document"] == {}
    whole = json.loads("".join(everything(db, revisions=True)))
    assert [(r["number"], r["parent"]) for r in whole["revisions"]] == [(1, None), (2, 1)]
    db.close()
