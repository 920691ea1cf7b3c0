"""What is installed: a wheel with the interface inside, in a bare Python, with no Node and nothing of this folder."""

import json
import os
import shutil
import subprocess
import sys
import sysconfig
import venv
from pathlib import Path
from urllib.request import urlopen

import pytest

from .conftest import ROOT
from .counts import slow_proof

pytestmark = slow_proof


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A Python of its own with the wheel in it; what the wheel needs is lent from here, Lumso itself is not."""
    folder = tmp_path_factory.mktemp("wheel")
    tree = folder / "tree"
    shutil.copytree(ROOT / "src", tree / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    shutil.copy(ROOT / "pyproject.toml", tree)
    build = [
        sys.executable,
        "-m",
        "pip",
        "wheel",
        "--quiet",
        "--no-deps",
        "--no-build-isolation",
        "-w",
        str(folder),
        ".",
    ]
    subprocess.run(build, cwd=tree, check=True)
    (wheel,) = folder.glob("lumso-*.whl")
    venv.create(folder / "bare", with_pip=False)
    python = folder / "bare" / "bin" / "python"
    own = next((folder / "bare" / "lib").glob("python*/site-packages"))
    # A line of a .pth is looked through for packages, not for other .pth files: the editable Lumso stays unseen.
    (own / "needs.pth").write_text(sysconfig.get_path("purelib"))
    install = [sys.executable, "-m", "pip", "--python", str(python), "install", "--quiet", "--no-deps", str(wheel)]
    subprocess.run(install, check=True)
    return folder / "bare" / "bin" / "lumso"


def _run(lumso: Path, *arguments: str, cwd: Path) -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "PATH": "/usr/bin:/bin", "PYTHONPATH": ""}
    return subprocess.run([lumso, *arguments], cwd=cwd, env=environment, capture_output=True, text=True, check=True)


def test_it_plans_serves_and_backs_up(installed: Path, tmp_path: Path) -> None:
    made = _run(installed, "plan", str(ROOT / "examples" / "programme-rack.json"), cwd=tmp_path)
    assert json.loads(made.stdout)["problems"] == []
    where = _run(installed.with_name("python"), "-c", "import lumso; print(lumso.__file__)", cwd=tmp_path).stdout
    assert str(ROOT) not in where

    data = tmp_path / "x.sqlite3"
    command = [str(installed), "demo", "--port", "0", "--data", str(data)]
    with subprocess.Popen(command, cwd=tmp_path, stdout=subprocess.PIPE, text=True) as running:
        assert running.stdout
        address = next(word for word in running.stdout.readline().split() if word.startswith("http"))
        with urlopen(address) as page:
            assert 'id="root"' in page.read().decode()
        with urlopen(f"{address}api/jobs") as reply:
            jobs = json.load(reply)
        _run(installed, "backup", "kept.lumso.zip", "--data", str(data), cwd=tmp_path)
        running.terminate()
    assert (jobs["count"], jobs["last"]["name"]) == (11, "Programme rack")
    said = _run(installed, "restore", "kept.lumso.zip", "--data", "other.sqlite3", cwd=tmp_path)
    assert "14 jobs" in said.stdout  # three of them finished and put away
    assert "whole" in _run(installed, "check", "--data", "other.sqlite3", cwd=tmp_path).stdout
