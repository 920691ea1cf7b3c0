"""The interface's types come from the API's own description."""

import json
import subprocess
import sys

from tests.conftest import ROOT


def test_the_description_the_interface_was_typed_from_is_up_to_date() -> None:
    command = [sys.executable, str(ROOT / "tools" / "describe.py"), "api"]
    described = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    kept = (ROOT / "ui" / "api.json").read_text(encoding="utf-8")
    assert json.loads(kept) == json.loads(described), "run `make api-types`"
