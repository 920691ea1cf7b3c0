"""The command line: plans without a server, and says clearly what it cannot do."""

import json
import signal
import socket
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from urllib.request import Request, urlopen

import pytest
from typer.testing import CliRunner

from lumso.cli import app
from lumso.commands.parts import bind
from tests.conftest import ROOT

run = CliRunner()
EXAMPLE = str(ROOT / "examples" / "programme-rack.json")


def test_plan_prints_the_plan_as_json() -> None:
    result = run.invoke(app, ["plan", EXAMPLE, "--measures", "us"])
    assert result.exit_code == 0
    mix = json.loads(result.stdout)["zones"][0]["layers"][0]["pots"][0]["mix"]
    assert mix["volume"]["value"] == pytest.approx(46.13, abs=0.01)
    assert mix["parts"][1]["spoken"]["words"] == "2 tbsp + 1 tsp"


def test_plan_of_a_job_with_a_problem_exits_with_one_and_says_where(tmp_path: Path) -> None:
    doc = json.loads(Path(EXAMPLE).read_text())
    doc["piece"]["sizes"]["length"] = {"mm": 400_000, "typed": "400 m"}
    (tmp_path / "job.json").write_text(json.dumps(doc))
    result = run.invoke(app, ["plan", str(tmp_path / "job.json")])
    assert result.exit_code == 1
    assert "/piece/sizes/length" in result.stderr
    assert "10 mm to 6 m" in result.stderr


def test_work_prints_every_operation_in_order_and_agrees_with_the_plan() -> None:
    made = json.loads(run.invoke(app, ["work", EXAMPLE]).stdout)
    kinds = [o["kind"] for o in made["operations"]]
    assert kinds.index("lay out") < kinds.index("mix") < kinds.index("lay") < kinds.index("cure")
    known = {o["id"] for o in made["operations"]}
    assert len(known) == len(kinds)
    assert {c["first"] for c in made["constraints"]} | {c["then"] for c in made["constraints"]} <= known
    planned = json.loads(run.invoke(app, ["plan", EXAMPLE]).stdout)["zones"][0]["layers"]
    told = {pot["batch"]: pot["mix"]["volume"]["value"] for layer in planned for pot in layer["pots"]}
    mixed = {o["batch"]: o["amounts"] for o in made["operations"] if o["kind"] == "mix"}
    assert told.keys() == mixed.keys()
    for batch, amounts in mixed.items():
        assert {p["ml"] for p in amounts["parts"]} == {
            p["poured"]["value"] for x in planned for pot in x["pots"] if pot["batch"] == batch
            for p in pot["mix"]["parts"]
        }  # fmt: skip


def test_work_in_a_cold_room_takes_longer_and_exits_as_plan_does(tmp_path: Path) -> None:
    usual = json.loads(run.invoke(app, ["work", EXAMPLE]).stdout)
    cold = json.loads(run.invoke(app, ["work", EXAMPLE, "--temperature", "12"]).stdout)
    assert cold["elapsed_min"] > usual["elapsed_min"]
    assert cold["hands_on_min"] == usual["hands_on_min"]
    doc = json.loads(Path(EXAMPLE).read_text())
    doc["zones"][0]["layers"][0]["recipe"] = "moonshine"
    (tmp_path / "job.json").write_text(json.dumps(doc))
    result = run.invoke(app, ["work", str(tmp_path / "job.json")])
    assert result.exit_code == 1
    assert "/zones/0/layers/0" in result.stderr


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["plan", "nowhere.json"], "cannot be read"),
        (["plan", EXAMPLE, "--measures", "troy"], "Known: "),
        (["plan", str(ROOT / "pyproject.toml")], "Line 1"),
    ],
)
def test_what_cannot_be_planned_says_why_without_a_traceback(arguments: list[str], says: str) -> None:
    result = run.invoke(app, arguments)
    assert result.exit_code == 2
    assert says in result.stderr
    assert "Traceback" not in result.output


def test_a_port_in_use_is_named_with_a_way_out(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        result = run.invoke(app, ["serve", "--port", str(port), "--data", str(tmp_path / "x.sqlite3")])
    assert result.exit_code == 1
    assert f"port {port}" in result.stderr
    assert "--port" in result.stderr


def test_a_database_that_cannot_be_opened_stops_with_a_reason(tmp_path: Path) -> None:
    (tmp_path / "x.sqlite3").write_text("not a database " * 100)
    result = run.invoke(app, ["serve", "--port", "0", "--data", str(tmp_path / "x.sqlite3")])
    assert result.exit_code == 1
    assert "not a Lumso database" in result.stderr


def test_what_is_accepted_is_known_as_tcp_so_that_answers_leave_at_once() -> None:
    with bind("127.0.0.1", 0) as listener, socket.create_connection(listener.getsockname()):
        accepted, _ = listener.accept()
        with accepted:
            assert accepted.proto == socket.IPPROTO_TCP  # what the server looks at before it sets TCP_NODELAY


@pytest.mark.parametrize("number", [signal.SIGTERM, signal.SIGHUP, signal.SIGINT])
def test_stopped_by_any_signal_the_database_is_whole_in_one_file(tmp_path: Path, number: signal.Signals) -> None:
    data = tmp_path / "workshop.sqlite3"
    command = [sys.executable, "-m", "lumso", "serve", "--port", "0", "--data", str(data)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True) as lumso:
        assert lumso.stdout
        assert lumso.stderr
        address = next(word for word in lumso.stdout.readline().split() if word.startswith("http"))
        request = Request(f"{address}api/jobs/start", b"{}", {"Content-Type": "application/json"})
        with urlopen(request) as reply:
            begun = json.load(reply)["id"]
        assert (tmp_path / "workshop.sqlite3-wal").exists()
        lumso.send_signal(number)
        lumso.wait(timeout=20)
        assert "Traceback" not in lumso.stderr.read()
    assert [f.name for f in tmp_path.iterdir()] == ["workshop.sqlite3"]
    with closing(sqlite3.connect(data)) as kept:
        assert kept.execute("SELECT id FROM job").fetchall() == [(begun,)]


def test_days_prints_when_what_is_done_without_a_server() -> None:
    when = ["--from", "2026-11-24T08:00", "--hours", "tue,thu 18:30-21:30"]
    best = run.invoke(app, ["days", EXAMPLE, *when])
    assert best.exit_code == 0, best.output
    made = json.loads(best.stdout)
    assert (made["format"], made["version"], made["how"]) == ("lumso-days", 1, "best")
    assert {v["day"][:3] for v in made["visits"]} <= {"Tue", "Thu"}
    at_once = json.loads(run.invoke(app, ["days", EXAMPLE, *when, "--at-once"]).stdout)
    assert at_once["how"] == "at once"
    assert made["jobs"][0]["finished_min"] <= at_once["jobs"][0]["finished_min"]


@pytest.mark.parametrize(
    ("option", "says"),
    [
        (("--hours", "whenever"), "opening hours"),
        (("--zone", "Mars"), "time zone"),
        (("--from", "soon"), "date and time"),
        (("--place", "attic"), "heated-room"),
    ],
)
def test_days_refuses_what_it_cannot_use_in_words(option: tuple[str, str], says: str) -> None:
    refused = run.invoke(app, ["days", EXAMPLE, *option])
    assert refused.exit_code == 2
    assert says in refused.stderr
    assert "Traceback" not in refused.output


def test_days_exits_with_1_where_something_fits_nowhere() -> None:
    cold = run.invoke(app, ["days", EXAMPLE, "--temperature", "5", "--from", "2026-11-24T08:00", "--at-once"])
    assert cold.exit_code == 1
    assert "no fit hour" in cold.stderr


def test_chip_writes_a_picture_to_scale_without_a_server(tmp_path: Path) -> None:
    from PIL import Image

    out = tmp_path / "chip.png"
    result = run.invoke(app, ["chip", EXAMPLE, "rack board", str(out), "--px", "320"])
    assert result.exit_code == 0, result.output
    assert "an estimate" in result.stdout
    with Image.open(out) as made:
        assert made.size == (320, 320)
    none = run.invoke(app, ["chip", EXAMPLE, "roof", str(out)])
    assert none.exit_code == 2
    assert "It has: Rack board" in none.stderr
    nowhere = run.invoke(app, ["chip", EXAMPLE, "rack", str(tmp_path / "no" / "chip.png")])
    assert nowhere.exit_code == 2
    assert "cannot be written" in nowhere.stderr


def test_heavy_libraries_stay_out_of_the_start() -> None:
    asked = "import sys, lumso.cli, lumso.api.app; print(*sorted({m.split('.')[0] for m in sys.modules}))"
    loaded = subprocess.run([sys.executable, "-c", asked], capture_output=True, text=True, check=True).stdout.split()
    assert "fastapi" in loaded
    assert not {"ortools", "pandas", "icalendar", "reportlab", "cryptography", "PIL"} & set(loaded)
