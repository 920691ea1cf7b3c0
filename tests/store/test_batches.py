"""Frozen batches: kept as they were, under codes that can be read aloud."""

import re
from concurrent.futures import ThreadPoolExecutor

import pytest

from lumso.store import batches, jobs
from lumso.store.database import Database
from lumso.store.errors import NotFound


def a_job(db: Database) -> str:
    return jobs.create(db, "Rack", "{}").id


def test_a_code_is_two_syllables_and_two_digits() -> None:
    codes = {batches.new_code() for _ in range(200)}
    assert len(codes) > 190
    for code in codes:
        assert re.fullmatch(r"([bdfgklmnprstvz][aeiou]){2}-[1-9]\d", code)


def test_the_same_batch_keeps_its_code_and_another_gets_its_own(db: Database) -> None:
    job = a_job(db)
    first = batches.freeze(db, job, 1, [("a", "{1}"), ("b", "{2}")])
    again = batches.freeze(db, job, 1, [("a", "{1}"), ("b", "{2}")])
    assert again == first
    assert first[0].code != first[1].code
    (changed,) = batches.freeze(db, job, 1, [("a", "{3}")])
    (later,) = batches.freeze(db, job, 2, [("a", "{1}")])
    assert len({first[0].code, changed.code, later.code}) == 3
    assert batches.by_code(db, first[0].code).document == "{1}"


def test_a_code_that_is_taken_is_drawn_again(db: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    drawn = iter(["mofa-27", "mofa-27", "mofa-27", "lobi-31"])
    monkeypatch.setattr(batches, "new_code", lambda: next(drawn))
    job = a_job(db)
    one, two = batches.freeze(db, job, 1, [("a", "{1}"), ("b", "{2}")])
    assert (one.code, two.code) == ("mofa-27", "lobi-31")


@pytest.mark.parametrize("written", ["mofa-27", "MOFA 27", "mofa27", " Mofa - 27 ", "mofa–27"])
def test_a_code_is_found_however_it_is_written(db: Database, written: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(batches, "new_code", lambda: "mofa-27")
    batches.freeze(db, a_job(db), 1, [("a", "{1}")])
    assert batches.by_code(db, written).document == "{1}"


def test_what_is_not_there_is_said(db: Database) -> None:
    with pytest.raises(NotFound, match="zuzu-99"):
        batches.by_code(db, "zuzu-99")
    with pytest.raises(NotFound, match="no job"):
        batches.freeze(db, "nope", 1, [("a", "{1}")])
    with pytest.raises(NotFound):
        batches.by_code(db, "%")


def test_two_printers_at_once_get_the_same_codes(db: Database) -> None:
    job = a_job(db)
    wanted = [(f"b{i}", f"{{{i}}}") for i in range(12)]
    with ThreadPoolExecutor(4) as pool:
        made = list(pool.map(lambda _: batches.freeze(db, job, 1, wanted), range(8)))
    codes = [[f.code for f in one] for one in made]
    assert all(one == codes[0] for one in codes)
    assert len(set(codes[0])) == 12
