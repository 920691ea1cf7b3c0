"""The lock files say what to install and how to know it, not where from: no address of any machine stands in them."""

import pytest

from .conftest import ROOT


@pytest.mark.parametrize("name", ["requirements.lock", "ui/package-lock.json"])
def test_a_lock_file_names_no_address(name: str) -> None:
    text = (ROOT / name).read_text(encoding="utf-8")
    assert "sha" in text
    assert "://" not in text, "run tools/lock_without_addresses.py, as `make lock` does"
