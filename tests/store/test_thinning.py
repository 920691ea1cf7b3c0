"""Old revisions let go by age: never what undo, redo or a printed batch would miss."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.store import batches, jobs
from lumso.store.database import Database
from lumso.store.file import thorough
from lumso.store.thinning import thin
from tests.counts import examples

NOW = datetime(2026, 11, 27, 12, tzinfo=UTC)


def saved(db: Database, *days_ago: float) -> str:
    """A job with a revision for each of these times, each made from the one before; the first was created with it."""
    job = jobs.create(db, "Rack", "start")
    for i, ago in enumerate(days_ago):
        revision = i + 1
        if i:
            jobs.save(db, job.id, i, "Rack", f"text {revision}")
        _dated(db, job.id, revision, ago)
    return job.id


def _dated(db: Database, job: str, revision: int, ago: float) -> None:
    at = (NOW - timedelta(days=ago)).isoformat()
    with db.write() as connection:
        connection.execute("UPDATE job_revision SET saved_at = ? WHERE job_id = ? AND number = ?", (at, job, revision))


def numbers(db: Database, job: str) -> list[int]:
    with db.read() as connection:
        rows = connection.execute("SELECT number FROM job_revision WHERE job_id = ? ORDER BY number", (job,))
        return [row["number"] for row in rows]


def test_of_old_days_and_months_the_newest_is_kept_and_of_late_all(db: Database) -> None:
    ago = [900, 899.9, 890, 400, 399, 100.3, 100.2, 100.1, 99, 29, 28.9, 28.8, 1]
    job = saved(db, *ago)
    assert thin(db, NOW, steps=0) == 4
    # 899.9 and 890 days ago: one month; 400 and 399 too; three of one day; the last thirty days whole.
    assert numbers(db, job) == [1, 3, 5, 8, 9, 10, 11, 12, 13]
    assert thin(db, NOW, steps=0) == 0
    assert thorough(db.path) == []


def test_undo_goes_across_what_is_gone_and_says_how_much(db: Database) -> None:
    job = saved(db, *[100 + i / 100 for i in range(9, 0, -1)], 1)
    thin(db, NOW, steps=1)
    assert numbers(db, job) == [1, 9, 10]
    here = jobs.get(db, job)
    assert (here.revision, here.gap) == (10, 0)
    here = jobs.undo(db, job, 10)
    assert (here.document, here.gap, here.can_undo) == ("text 9", 7, True)
    here = jobs.undo(db, job, 9)
    assert (here.document, here.can_undo, here.can_redo) == ("start", False, True)
    assert jobs.redo(db, job, 1).document == "text 9"


def test_two_hundred_steps_of_undo_are_kept_however_old(db: Database) -> None:
    job = saved(db, *[500 + i / 1000 for i in range(260, 0, -1)])
    thin(db, NOW)
    kept = numbers(db, job)
    assert kept[0] == 1
    assert kept[1:] == list(range(60, 261))


def test_redo_leads_where_it_led_however_old_another_branch_is(db: Database) -> None:
    # one → two → four, and one → three: at one redo leads to three, also when four is joined to one.
    job = jobs.create(db, "Rack", "one").id
    jobs.save(db, job, 1, "Rack", "two")
    jobs.undo(db, job, 2)
    jobs.save(db, job, 1, "Rack", "three")
    jobs.go_back_to(db, job, 3, 2)
    jobs.save(db, job, 2, "Rack", "four")
    jobs.go_back_to(db, job, 4, 1)
    assert jobs.redo(db, job, 1).document == "three"
    jobs.undo(db, job, 3)
    for number in (1, 2, 3, 4):
        _dated(db, job, number, 100)
    assert thin(db, NOW, steps=1) == 1
    assert numbers(db, job) == [1, 3, 4]
    assert jobs.redo(db, job, 1).document == "three"


def test_redo_leads_there_also_when_more_of_that_branch_goes_later(db: Database) -> None:
    job = jobs.create(db, "Rack", "one").id
    for read, text in ((1, "two"), (2, "four")):
        jobs.save(db, job, read, "Rack", text)
        if text == "two":
            jobs.go_back_to(db, job, 2, 1)
            jobs.save(db, job, 1, "Rack", "three")
            jobs.go_back_to(db, job, 3, 2)
    jobs.save(db, job, 4, "Rack", "five")
    jobs.go_back_to(db, job, 5, 1)
    for number, ago in ((1, 400), (2, 101), (3, 400), (4, 101), (5, 100)):
        _dated(db, job, number, ago)
    jobs.redo(db, job, 1)
    jobs.undo(db, job, 3)
    assert thin(db, NOW, steps=1) == 1, "two: four is the newest of its day"
    _dated(db, job, 4, 100)
    assert thin(db, NOW, steps=1) == 1, "four"
    assert numbers(db, job) == [1, 3, 5]
    assert jobs.redo(db, job, 1).document == "three"


def test_what_a_batch_was_printed_from_is_kept(db: Database) -> None:
    job = saved(db, *[100 + i / 100 for i in range(9, 0, -1)], 1)
    batches.freeze(db, job, 4, [("a", "{}")])
    thin(db, NOW, steps=0)
    assert 4 in numbers(db, job)


def test_a_number_is_never_given_twice(db: Database) -> None:
    job = saved(db, 300, 299, 200, 200)
    jobs.go_back_to(db, job, 4, 1)
    thin(db, NOW, steps=0)
    assert jobs.save(db, job, 1, "Rack", "another").revision == 5


@examples("undo after letting go")
@given(
    st.lists(st.tuples(st.sampled_from("ssurt"), st.integers(0, 400)), min_size=4, max_size=40),
    st.integers(1, 4),
)
def test_undo_and_redo_come_to_what_they_came_to_without_it(
    tmp_path_factory: pytest.TempPathFactory, steps: list[tuple[str, int]], kept: int
) -> None:
    folder = tmp_path_factory.mktemp("thin")
    whole, thinned = Database(folder / "whole.sqlite3"), Database(folder / "thinned.sqlite3")
    ids = [jobs.create(db, "Rack", "start").id for db in (whole, thinned)]
    heads = [1, 1]
    since: int | None = None  # how many steps were gone from where it was thinned last
    for number, (what, ago) in enumerate(steps):
        if what == "t":
            thin(thinned, NOW, kept)
            since = 0
            continue
        if since is not None and what in "ur":
            since += 1
            if since > kept:
                break  # beyond what is promised
        for i, db in enumerate((whole, thinned)):
            if what == "s":
                got = jobs.save(db, ids[i], heads[i], "Rack", f"text {number}")
                _dated(db, ids[i], got.revision, ago)
            else:
                got = (jobs.undo if what == "u" else jobs.redo)(db, ids[i], heads[i])
            heads[i] = got.revision
        assert jobs.get(whole, ids[0]).document == jobs.get(thinned, ids[1]).document
        assert heads[0] == heads[1]
    assert thorough(thinned.path) == []
    whole.close()
    thinned.close()
