"""Patches: what makes one document of another, read alike by the page and by the server."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter

from lumso.formats.patch import Arrange, ById, Put, Step, diff, meets, patched, touched
from tests import patch_cases

STEPS: TypeAdapter[list[Step]] = TypeAdapter(list[Step])
TABLE: list[dict[str, Any]] = json.loads(patch_cases.FILE.read_text(encoding="utf-8"))

KEYS = st.sampled_from(("a", "b", "value", "order", "at"))
LEAVES = st.none() | st.booleans() | st.integers(0, 3) | st.sampled_from(("wash", "wax", ""))
NAMED = st.lists(st.sampled_from(("p", "q", "r")), unique=True).flatmap(
    lambda ids: st.tuples(*(st.fixed_dictionaries({"id": st.just(i), "n": LEAVES}) for i in ids)).map(list)
)
JSON: st.SearchStrategy[Any] = st.recursive(
    LEAVES | NAMED, lambda inner: st.lists(inner, max_size=3) | st.dictionaries(KEYS, inner, max_size=3), max_leaves=8
)


def exactly(one: Any, other: Any) -> bool:
    """The same JSON: true is not 1 there."""
    return json.dumps(one, sort_keys=True) == json.dumps(other, sort_keys=True)


@given(before=JSON, after=JSON, numbered=st.booleans())
def test_a_patch_makes_the_one_of_the_other_also_after_a_trip(before: Any, after: Any, numbered: bool) -> None:
    steps = diff(before, after, numbered)
    sent = STEPS.validate_json(STEPS.dump_json(steps, exclude_unset=True))
    assert exactly(patched(before, sent), after)
    assert diff(before, before, numbered) == []


def test_the_table_both_readers_are_held_to_is_not_stale() -> None:
    assert patch_cases.FILE.read_text(encoding="utf-8") == patch_cases.text()
    for case in TABLE:
        assert exactly(patched(case["before"], STEPS.validate_python(case["patch"])), case["after"])


def test_it_is_made_to_another_version_by_the_ids() -> None:
    before = {"layers": [{"id": "a", "coats": 1}, {"id": "b", "coats": 1}]}
    after = {"layers": [{"id": "a", "coats": 3}, {"id": "new", "coats": 1}]}
    meanwhile = {"layers": [{"id": "primer"}, {"id": "a", "coats": 1, "margin": 0.2}, {"id": "b", "coats": 1}]}
    assert patched(meanwhile, diff(before, after)) == {
        "layers": [{"id": "primer"}, {"id": "a", "coats": 3, "margin": 0.2}, {"id": "new", "coats": 1}]
    }
    gone: dict[str, Any] = {"layers": []}
    assert patched(gone, [Put(at=["layers", ById(id="a"), "coats"], value=2)]) == gone, "what is not there is left out"


def coats(layer: str) -> Put:
    return Put(at=["zones", ById(id="top"), "layers", ById(id=layer), "coats"], value=2)


ADDED = Arrange(at=["zones", ById(id="top"), "layers"], order=["a", "b"], added={"b": {}}, removed=[])
TAKEN = Arrange(at=["zones", ById(id="top"), "layers"], order=["b"], added={}, removed=["a"])


@pytest.mark.parametrize(
    ("mine", "theirs", "meet"),
    [
        (coats("a"), coats("a"), True),
        (coats("a"), coats("b"), False),
        (coats("a"), Put(at=["zones", ById(id="top"), "layers", ById(id="a")], value=None), True),
        (coats("a"), Put(at=["name"], value="Rack"), False),
        (coats("a"), ADDED, False),
        (coats("a"), TAKEN, True),
        (ADDED, TAKEN, True),
    ],
)
def test_two_changes_meet_where_one_place_lies_in_the_other(mine: Step, theirs: Step, meet: bool) -> None:
    assert meets(touched([mine]), touched([theirs])) is meet
