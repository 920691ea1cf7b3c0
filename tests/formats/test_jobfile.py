"""The job file: what is refused and how that is said, and that nothing is lost on the way."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from jsonschema import Draft202012Validator

from lumso.catalogue import shipped
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.core.measure.lengths import parse_length
from lumso.demo import demo_jobs
from lumso.formats.jobfile import from_document, from_json, to_json
from lumso.formats.reading import UnfitDocument
from lumso.formats.schemas import DOCUMENTS, schema
from tests.conftest import ROOT, planned


def document(**changes: Any) -> dict[str, Any]:
    found: dict[str, Any] = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
    return {**found, **changes}


def layer(doc: dict[str, Any]) -> dict[str, Any]:
    found: dict[str, Any] = doc["zones"][0]["layers"][0]
    return found


def test_a_job_comes_back_from_its_file_as_it_was(rack: Job) -> None:
    carried = embed(rack, shipped())
    assert from_json(to_json(carried)) == carried


def test_a_job_carries_the_entries_it_uses_and_plans_the_same_from_them(rack: Job) -> None:
    carried = embed(rack, shipped())
    assert [r.slug for r in carried.entries.recipes] == ["paint-wash-raw-wood"]
    assert planned(carried) == planned(rack)
    assert embed(carried, shipped()) == carried


def unfit(doc: object) -> tuple[str, str, str]:
    with pytest.raises(UnfitDocument) as caught:
        from_document(doc)
    fault = caught.value.faults[0]
    return fault.at, fault.says, fault.allowed


def test_an_unknown_field_is_named_with_its_place() -> None:
    doc = document()
    layer(doc)["glitter"] = True
    at, says, _ = unfit(doc)
    assert at == "/zones/0/layers/0/glitter"
    assert "'glitter'" in says


@pytest.mark.parametrize(
    ("change", "at", "allowed"),
    [
        ({"coats": 0}, "/zones/0/layers/0/coats", "1 or more"),
        ({"coats": 2.5}, "/zones/0/layers/0/coats", "a whole number"),
        ({"margin": -0.1}, "/zones/0/layers/0/margin", "0 or more"),
        ({"margin": float("nan")}, "/zones/0/layers/0/margin", "a finite number"),
        ({"want": {"by": "total", "ml": -5}}, "/zones/0/layers/0/want/ml", "more than 0"),
        ({"want": {"by": "guess"}}, "/zones/0/layers/0/want/by", "'area'"),
        ({"colours": {"paint": {"name": "x", "hex": "teal"}}}, "/zones/0/layers/0/colours/paint/hex", "#rrggbb"),
        ({"amounts": {"water": {"by": "volume-share", "share": 2}}}, "/zones/0/layers/0/amounts/water/share", "than 1"),
    ],
)  # fmt: skip
def test_bad_values_are_refused_at_their_place_with_what_is_allowed(change: Any, at: str, allowed: str) -> None:
    doc = document()
    layer(doc).update(change)
    found = unfit(doc)
    assert found[0] == at
    assert allowed in found[2]


@pytest.mark.parametrize(
    ("doc", "at"),
    [
        ([], "/format"),
        ({"format": "recipe"}, "/format"),
        (document(version=99), "/version"),
        (document(version="one"), "/version"),
        (document(zones=[]), "/zones"),
        (document(name=""), "/name"),
    ],
)
def test_what_is_no_job_says_what_it_should_be(doc: object, at: str) -> None:
    assert unfit(doc)[0] == at


def test_sizes_whose_words_and_millimetres_disagree_are_refused() -> None:
    doc = document()
    doc["piece"]["sizes"]["length"]["mm"] = 999
    at, says, _ = unfit(doc)
    assert at == "/piece/sizes/length"
    assert "1000" in says


@pytest.mark.parametrize(
    "text", ['{"format": ', '{"a": NaN}', "[" * 100_000, b"\xff\xfe{", ""], ids=["cut", "nan", "deep", "bytes", "empty"]
)
def test_text_that_is_no_json_is_refused_without_a_traceback(text: str | bytes) -> None:
    with pytest.raises(UnfitDocument):
        from_json(text)


def test_the_exported_schemas_are_up_to_date(tmp_path: Path) -> None:
    command = [sys.executable, str(ROOT / "tools" / "describe.py"), "schemas", str(tmp_path)]
    subprocess.run(command, check=True)
    for name in DOCUMENTS:
        file = f"{name}.schema.json"
        kept = json.loads((ROOT / "docs" / "schema" / file).read_text())
        assert kept == json.loads((tmp_path / file).read_text()), "run `make schemas`"


def test_examples_fit_the_published_schema() -> None:
    validator = Draft202012Validator(schema("job"))
    for path in sorted((ROOT / "examples").glob("*.json")):
        validator.validate(json.loads(path.read_text()))


def test_plans_fit_the_published_schema() -> None:
    validator = Draft202012Validator(schema("plan"))
    for job in demo_jobs():
        validator.validate(json.loads(DOCUMENTS["plan"].dump_json(planned(job))))


@pytest.mark.parametrize("path", sorted((Path(__file__).parent / "old").glob("*.json")), ids=lambda p: p.stem)
def test_a_job_file_of_every_earlier_version_still_opens(path: Path) -> None:
    assert planned(from_json(path.read_bytes())).problems == ()


def test_a_size_whose_words_are_read_otherwise_today_keeps_its_millimetres_and_is_to_be_looked_at() -> None:
    old = json.loads((Path(__file__).parent / "old" / "job-10.json").read_text())
    was = {slug: size["mm"] for slug, size in old["piece"]["sizes"].items()}
    piece = from_json(json.dumps(old).encode()).piece
    assert piece is not None
    assert {slug: size.mm for slug, size in piece.sizes.items()} == was
    again = [size for size in piece.sizes.values() if size.source == "reread"]
    assert [(size.mm, size.typed) for size in again] == [(275.4, "275.4 mm")]
    assert [parse_length(size.typed).mm for size in again] == [275.4]
