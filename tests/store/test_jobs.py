"""Jobs in append-only revisions: nothing saved is ever lost, and undo survives a restart."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.store import batches, jobs
from lumso.store.database import Database
from lumso.store.errors import NotFound, StaleRevision
from tests.counts import examples


def revisions(db: Database) -> int:
    with db.read() as connection:
        return int(connection.execute("SELECT count(*) FROM job_revision").fetchone()[0])


def test_undo_and_redo_move_the_head_and_survive_a_restart(tmp_path: Path) -> None:
    db = Database(tmp_path / "x.sqlite3")
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    back = jobs.undo(db, job.id, 2)
    assert (back.document, back.can_undo, back.can_redo) == ("one", False, True)
    db.close()
    db = Database(tmp_path / "x.sqlite3")
    again = jobs.redo(db, job.id, 1)
    assert (again.document, again.can_undo, again.can_redo) == ("two", True, False)
    db.close()


def test_a_stale_save_is_refused_and_changes_nothing(db: Database) -> None:
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "theirs")
    with pytest.raises(StaleRevision) as caught:
        jobs.save(db, job.id, 1, "Rack", "mine")
    assert (caught.value.read, caught.value.head) == (1, 2)
    assert jobs.get(db, job.id).document == "theirs"


def test_saving_the_same_again_adds_no_revision(db: Database) -> None:
    job = jobs.create(db, "Rack", "one")
    assert jobs.save(db, job.id, 1, "Rack", "one").revision == 1


def test_an_edit_after_undo_keeps_the_undone_revision(db: Database) -> None:
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    jobs.undo(db, job.id, 2)
    third = jobs.save(db, job.id, 1, "Rack", "three")
    assert (third.revision, third.can_redo) == (3, False)
    assert jobs.undo(db, job.id, 3).document == "one"
    assert revisions(db) == 3


def test_redo_follows_its_own_branch_to_the_newest(db: Database) -> None:
    # one → two → deep, and one → three: from one, redo leads to three; from two to deep; never across.
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    jobs.save(db, job.id, 2, "Rack", "deep")
    jobs.undo(db, job.id, 3)
    jobs.undo(db, job.id, 2)
    third = jobs.save(db, job.id, 1, "Rack", "three")
    assert not third.can_redo
    assert jobs.redo(db, job.id, 4).document == "three"
    jobs.undo(db, job.id, 4)
    assert jobs.redo(db, job.id, 1).document == "three"
    jobs.undo(db, job.id, 4)
    fifth = jobs.save(db, job.id, 1, "Rack", "five")
    jobs.undo(db, job.id, fifth.revision)
    assert jobs.redo(db, job.id, 1).document == "five"


def test_redo_goes_one_step_however_much_was_undone(db: Database) -> None:
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    jobs.save(db, job.id, 2, "Rack", "three")
    jobs.undo(db, job.id, 3)
    jobs.undo(db, job.id, 2)
    assert jobs.redo(db, job.id, 1).document == "two"
    assert jobs.redo(db, job.id, 2).document == "three"


def test_a_save_that_says_what_was_before_is_an_undo_and_one_that_says_what_was_undone_a_redo(db: Database) -> None:
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    back = jobs.save(db, job.id, 2, "Rack", "one")
    assert (back.revision, back.can_undo, back.can_redo) == (1, False, True)
    on = jobs.save(db, job.id, 1, "Rack", "two")
    assert (on.revision, on.can_undo) == (2, True)
    assert revisions(db) == 2
    jobs.save(db, job.id, 2, "Rack", "three")
    assert jobs.save(db, job.id, 3, "Rack", "one").revision == 4, "what lies further back is a new revision"


def test_jobs_are_listed_last_worked_on_first_and_can_be_put_away(db: Database) -> None:
    first, second = jobs.create(db, "A", "a"), jobs.create(db, "B", "b")
    assert [j.id for j in jobs.page(db, 99).jobs] == [second.id, first.id]
    jobs.put_away(db, second.id, away=True)
    assert [j.id for j in jobs.page(db, 99).jobs] == [first.id]
    jobs.put_away(db, second.id, away=False)
    assert len(jobs.page(db, 99).jobs) == 2


def test_an_unknown_job_is_named(db: Database) -> None:
    with pytest.raises(NotFound, match="nowhere"):
        jobs.get(db, "nowhere")


@examples("saves in any order")
@given(st.lists(st.sampled_from(["save", "undo", "redo"]), max_size=12))
def test_whatever_is_done_no_document_is_lost(tmp_path_factory: pytest.TempPathFactory, moves: list[str]) -> None:
    db = Database(tmp_path_factory.mktemp("jobs") / "x.sqlite3")
    now = jobs.create(db, "Rack", "0")
    written = {"0"}
    for i, move in enumerate(moves, 1):
        if move == "save":
            now = jobs.save(db, now.id, now.revision, "Rack", str(i))
            written.add(str(i))
        else:
            now = getattr(jobs, move)(db, now.id, now.revision)
    with db.read() as connection:
        kept = {row[0] for row in connection.execute("SELECT document FROM job_revision")}
    db.close()
    assert kept == written


def test_what_is_typed_over_is_one_revision_and_one_step_of_undo(db: Database) -> None:
    made = jobs.create(db, "R", "0")
    before = jobs.save(db, made.id, 1, "R", "coats", "k0")
    first = jobs.save(db, made.id, before.revision, "R", "R", "k1")
    last = jobs.save(db, made.id, first.revision, "Ra", "Ra", "k2", goes_on=True)
    again = jobs.save(db, made.id, last.revision, "Rack", "Rack", "k3", goes_on=True)
    assert jobs.told(db, made.id, "k1") == again.revision, "asked again, it came to what took its place"
    assert jobs.undo(db, made.id, again.revision).document == "coats"
    assert jobs.redo(db, made.id, before.revision).document == "Rack"
    batches.freeze(db, made.id, first.revision, [("a", "{}")])
    with db.write() as connection:
        connection.execute("UPDATE job_revision SET saved_at = '2026-01-01T00:00:00+00:00'")
    jobs.save(db, made.id, again.revision, "Racks", "Racks")
    assert revisions(db) == 5, "what was typed over goes after a day, but for what was printed from"
    assert jobs.at(db, made.id, first.revision).document == "R"
    with pytest.raises(NotFound):
        jobs.at(db, made.id, last.revision)
