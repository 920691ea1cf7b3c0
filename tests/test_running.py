"""What the documents tell whoever runs Lumso: the unit, the limits, and what `lumso check` says of a machine."""

import os
import re
import shutil
import subprocess
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from typer.testing import CliRunner

from lumso.api.app import DARKROOM_MB
from lumso.api.door import MOST, MOST_BYTES
from lumso.cli import app
from lumso.formats.photo import MOST_PIXELS
from lumso.serving.lines import Limits
from lumso.store import backup, devices, jobs
from lumso.store.archive import KEPT_FREE
from lumso.store.database import Database
from lumso.store.health import health

DOCS = Path(__file__).parents[1] / "docs"


@pytest.mark.skipif(not shutil.which("systemd-analyze"), reason="no systemd here")
def test_the_unit_is_one_that_systemd_reads(tmp_path: Path) -> None:
    unit = tmp_path / "lumso.service"
    text = (DOCS / "lumso.service").read_text(encoding="utf-8")
    unit.write_text(text.replace("/opt/lumso/bin/lumso", "/bin/true").replace("User=lumso", "User=root"), "utf-8")
    found = subprocess.run(["systemd-analyze", "verify", str(unit)], capture_output=True, text=True, check=False)
    assert [line for line in found.stderr.splitlines() if "lumso.service" in line] == []


def test_the_limits_in_the_documents_are_those_that_hold() -> None:
    text, limits = (DOCS / "running.md").read_text(encoding="utf-8"), Limits()
    assert f"{limits.in_all}, of which {limits.own} are the machine's own; {limits.an_address}" in text
    assert f"{limits.head_s:.0f} s; {limits.body_s:.0f} s; {limits.taken_s:.0f} s" in text
    assert f"closed after {limits.kept_s} s" in text
    photographs, restore = MOST["/api/photographs"] // 1024**2, MOST["/api/restore"] // 1024**3
    assert f"{MOST_BYTES // 1024**2} MB; photographs {photographs} MB, a backup {restore} GB, a code 2 kB" in text
    assert f"{MOST_PIXELS // 10**6} million points" in text
    assert f"{DARKROOM_MB} MB of memory" in text
    assert f"{KEPT_FREE // 1024**2} MB of the disk stay free" in text


@pytest.fixture
def sound(tmp_path: Path) -> Path:
    """A workshop in which all is well."""
    path = tmp_path / "w.sqlite3"
    before = os.umask(0o077)
    db = Database(path)
    jobs.create(db, "One", "{}")
    devices.let_in(db, "Tablet", "works")
    backup.make(path)
    db.close()
    os.umask(before)
    return path


def said(path: Path, now: datetime | None = None) -> tuple[str, list[str]]:
    """All that is said, and what of it is trouble."""
    found = list(health(path, now))
    return "\n".join(s.says for s in found), [s.says for s in found if s.trouble]


def test_of_a_sound_workshop_all_is_said_and_nothing_is_wrong(sound: Path) -> None:
    text, wrong = said(sound)
    assert wrong == []
    for told in ("is whole", "MB free", "1 backups", "1 works", "SQLite"):
        assert told in text
    done = CliRunner().invoke(app, ["check", "--data", str(sound)])
    assert done.exit_code == 0


def test_each_thing_that_is_wrong_is_said_and_ends_with_one(sound: Path) -> None:
    late = datetime.now(UTC) + timedelta(days=3)
    assert any("3 days ago" in w for w in said(sound, late)[1])
    assert any("clock is behind" in w for w in said(sound, datetime.now(UTC) - timedelta(days=1))[1])
    sound.chmod(0o644)
    assert any("read by others" in w for w in said(sound)[1])
    done = CliRunner().invoke(app, ["check", "--data", str(sound)])
    assert done.exit_code == 1
    (backup.folder_of(sound) / "20260101-000000-000.lumso.zip").write_bytes(b"rotten")
    assert any("cannot be read" in w for w in said(sound)[1])
    sound.write_bytes(b"SQLite format 3\x00" + bytes(200))
    assert said(sound)[1]
    assert any("no workshop" in w for w in said(sound.with_name("none.sqlite3"))[1])


def test_devices_are_listed_raised_and_turned_out_without_a_screen(sound: Path) -> None:
    def lumso(*words: str) -> tuple[int, str]:
        done = CliRunner().invoke(app, ["devices", *words, "--data", str(sound)])
        return done.exit_code, done.output

    assert re.search(r"Tablet: works, until turned out", lumso()[1])
    assert "keeps, until 20" in lumso("Tablet", "--let", "keeps", "--for", "month")[1]
    assert lumso("Tablet", "--let", "owns")[0] == 2
    assert lumso("Nobody", "--turn-out")[0] == 2
    assert "The code is another now" in lumso("Tablet", "--turn-out")[1]
    assert "Nobody was let in" in lumso()[1]


def test_while_lumso_runs_the_command_line_leaves_its_file_in_use(sound: Path) -> None:
    """Another program that opens and closes the file does not say that it was closed."""
    running = Database(sound)
    jobs.create(running, "Two", "{}")
    assert CliRunner().invoke(app, ["devices", "Tablet", "--turn-out", "--data", str(sound)]).exit_code == 0
    with running.read() as connection:
        assert connection.execute("PRAGMA user_version").fetchone()[0] == 1
    running.close()
