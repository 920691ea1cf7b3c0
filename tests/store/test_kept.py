"""Saves that carry the revision they were made from and a key of their own, and what is put away or taken out."""

from collections.abc import Callable
from datetime import timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.store import aside, backup, batches, entries, jobs, keys, thinning
from lumso.store import settings as kept
from lumso.store.database import Database
from lumso.store.errors import InPlace, NotFound, OtherKey, StaleRevision
from lumso.store.keeper import Keeper
from tests.counts import examples


def test_an_entry_changed_meanwhile_is_not_written_over(db: Database) -> None:
    first = entries.save(db, "kit", "drawer", 0, "one")
    second = entries.save(db, "kit", "drawer", first, "two")
    assert second > first
    for stale in (0, first, second + 1):
        with pytest.raises(StaleRevision) as caught:
            entries.save(db, "kit", "drawer", stale, "three")
        assert caught.value.head == second
        with pytest.raises(StaleRevision):
            entries.delete(db, "kit", "drawer", stale)
    assert entries.every(db)["kit", "drawer"].document == "two"


def test_an_entry_made_again_is_not_the_one_that_was_read(db: Database) -> None:
    first = entries.save(db, "kit", "drawer", 0, "one")
    entries.delete(db, "kit", "drawer", first)
    again = entries.save(db, "kit", "drawer", 0, "another")
    assert again != first
    with pytest.raises(StaleRevision):
        entries.save(db, "kit", "drawer", first, "from before it was taken out")


def test_entries_changed_since_are_all_there_is_to_read(db: Database) -> None:
    entries.put(db, [("kit", "a", "1"), ("kit", "b", "1"), ("shelf", "a", "1")])
    state = db.version()
    assert entries.every(db, state) == {}
    entries.put(db, [("kit", "b", "2")])
    assert [(at, e.document) for at, e in entries.every(db, state).items()] == [(("kit", "b"), "2")]
    assert db.version() > state


def test_of_several_entries_one_changed_meanwhile_keeps_all_as_they_were(db: Database) -> None:
    entries.put(db, [("kit", "a", "1")])
    with pytest.raises(StaleRevision):
        entries.put(db, [("kit", "b", "2"), ("kit", "a", "2")], {("kit", "b"): 0, ("kit", "a"): 0})
    assert {at: e.document for at, e in entries.every(db).items()} == {("kit", "a"): "1"}


def test_work_on_jobs_changes_no_state_of_the_workshop(db: Database) -> None:
    state = db.version()
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    assert db.version() == state


Ask = Callable[[Database, str, int, str], int]
ASKED: dict[str, Ask] = {
    "save": lambda db, job, read, key: jobs.save(db, job, read, "Rack", "two", key).revision,
    "undo": lambda db, job, read, key: jobs.undo(db, job, read, key).revision,
    "redo": lambda db, job, read, key: jobs.redo(db, job, read, key).revision,
}


@pytest.mark.parametrize("asked", ASKED)
def test_a_change_of_a_job_asked_again_under_its_key_is_made_once(db: Database, asked: str) -> None:
    job = jobs.create(db, "Rack", "one")
    jobs.save(db, job.id, 1, "Rack", "middle")
    jobs.save(db, job.id, 2, "Rack", "last")
    read = jobs.undo(db, job.id, 3).revision
    came_to = ASKED[asked](db, job.id, read, "mine")
    jobs.save(db, job.id, came_to, "Rack", "somebody went on")
    head = jobs.get(db, job.id).revision
    assert ASKED[asked](db, job.id, read, "mine") == came_to
    assert jobs.get(db, job.id).revision == head, "nothing moved"
    with pytest.raises(StaleRevision):
        ASKED[asked](db, job.id, read, "another")


def test_a_job_made_again_under_its_key_is_the_one_that_was_made(db: Database) -> None:
    job = jobs.create(db, "Rack", "one", "mine")
    jobs.save(db, job.id, 1, "Rack", "two")
    assert jobs.create(db, "Rack", "one", "mine").id == job.id
    assert jobs.create(db, "Rack", "one", "another").id != job.id
    assert jobs.create(db, "Rack", "one").id != jobs.create(db, "Rack", "one").id


def test_entries_and_settings_asked_again_under_their_keys_are_changed_once(db: Database) -> None:
    one = entries.save(db, "kit", "drawer", 0, "one", "k1")
    two = entries.save(db, "kit", "drawer", one, "two", "k2")
    assert entries.save(db, "kit", "drawer", 0, "one", "k1") == one
    assert entries.every(db)["kit", "drawer"] == entries.Entry("two", two)
    entries.delete(db, "kit", "drawer", two, "k3")
    entries.save(db, "kit", "drawer", 0, "three")
    entries.delete(db, "kit", "drawer", two, "k3")
    assert entries.every(db)["kit", "drawer"].document == "three"
    chosen = kept.change(db, "workshop", lambda before: "a", 0, "k4")
    kept.change(db, "workshop", lambda before: "b", chosen)
    assert kept.change(db, "workshop", lambda before: "a", 0, "k4") == chosen
    assert kept.get(db, "workshop").document == "b"
    with pytest.raises(StaleRevision):
        kept.change(db, "workshop", lambda before: "c", chosen)


def test_a_key_that_was_used_for_another_document_is_refused(db: Database) -> None:
    entries.save(db, "kit", "drawer", 0, "one", "mine")
    with pytest.raises(OtherKey):
        entries.save(db, "kit", "tray", 0, "one", "mine")
    assert ("kit", "tray") not in entries.every(db)


def test_a_change_that_was_refused_leaves_its_key_unused(db: Database) -> None:
    entries.save(db, "kit", "drawer", 0, "one")
    with pytest.raises(StaleRevision):
        entries.save(db, "kit", "drawer", 0, "two", "mine")
    assert entries.save(db, "kit", "drawer", entries.every(db)["kit", "drawer"].revision, "two", "mine")
    assert entries.every(db)["kit", "drawer"].document == "two"


def test_what_is_taken_out_is_found_brought_back_or_deleted(db: Database) -> None:
    entries.put(db, [("kit", "drawer", "one"), ("recipe", "wash", "two")])
    entries.delete(db, "kit", "drawer")
    entries.delete(db, "recipe", "wash")
    kept.put(db, "workshop", "three")
    kept.delete(db, "workshop")
    found = {a.kind: a for a in aside.every(db)}
    assert {kind: (a.slug, a.document, a.why) for kind, a in found.items()} == {
        "kit": ("drawer", "one", "taken out"),
        "recipe": ("wash", "two", "taken out"),
        "setting": ("workshop", "three", "taken out"),
    }
    aside.bring_back(db, found["kit"].id)
    assert entries.every(db)["kit", "drawer"].document == "one"
    aside.delete(db, found["recipe"].id)
    with pytest.raises(InPlace):
        aside.bring_back(db, found["setting"].id)
    assert [a.kind for a in aside.every(db)] == ["setting"]
    for again in (found["kit"].id, found["recipe"].id):
        with pytest.raises(NotFound):
            aside.bring_back(db, again)
        with pytest.raises(NotFound):
            aside.delete(db, again)


def test_what_comes_back_takes_nobodys_place(db: Database) -> None:
    entries.put(db, [("kit", "drawer", "one")])
    entries.delete(db, "kit", "drawer")
    entries.put(db, [("kit", "drawer", "another")])
    (out,) = aside.every(db)
    with pytest.raises(InPlace):
        aside.bring_back(db, out.id)
    assert entries.every(db)["kit", "drawer"].document == "another"
    assert aside.get(db, out.id).document == "one"


def test_a_job_deleted_for_good_was_put_away_and_leaves_its_printed_batches(db: Database) -> None:
    job, other = jobs.create(db, "Rack", "one"), jobs.create(db, "Box", "one")
    jobs.save(db, job.id, 1, "Rack", "two")
    (batch,) = batches.freeze(db, job.id, 2, [("a", "{}")])
    with pytest.raises(NotFound, match="not put away"):
        jobs.delete(db, job.id)
    jobs.put_away(db, job.id, away=True)
    assert jobs.what_goes(db, job.id) == jobs.Gone(revisions=2, batches_kept=1)
    assert jobs.delete(db, job.id) == jobs.Gone(revisions=2, batches_kept=1)
    with pytest.raises(NotFound):
        jobs.get(db, job.id)
    assert jobs.page(db, 10, away=True).jobs == ()
    assert batches.by_code(db, batch.code) == batch
    assert jobs.get(db, other.id).document == "one"


def test_a_list_goes_on_page_by_page_and_finds_names_whatever_their_case(db: Database) -> None:
    made = [jobs.create(db, f"{'Große' if i % 2 else 'Kleine'} Bank {i}", "{}").id for i in range(7)]
    first = jobs.page(db, 3)
    assert ([j.id for j in first.jobs], first.count, first.more) == (made[:3:-1], 7, True)
    second = jobs.page(db, 3, before=first.jobs[-1].touched)
    third = jobs.page(db, 3, before=second.jobs[-1].touched)
    assert [j.id for page in (first, second, third) for j in page.jobs] == made[::-1]
    assert (second.more, third.more) == (True, False)
    assert {j.id for j in jobs.page(db, 9, search="  GROSSE ").jobs} == set(made[1::2])
    assert jobs.page(db, 9, search="%").jobs == ()
    jobs.put_away(db, made[0], away=True)
    assert [j.id for j in jobs.page(db, 9, away=True).jobs] == [made[0]]
    assert jobs.page(db, 9, search="bank 0").jobs == ()


def test_the_job_last_worked_on_is_first_whatever_the_clock_says(db: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    first, second = jobs.create(db, "A", "a"), jobs.create(db, "B", "b")
    monkeypatch.setattr("lumso.store.jobs.now", lambda: "1999-12-31T00:00:00.000Z")
    jobs.save(db, first.id, 1, "A", "worked on after the clock was set back")
    assert [j.id for j in jobs.page(db, 9).jobs] == [first.id, second.id]
    assert jobs.page(db, 1).jobs[0].id == first.id


def test_a_summary_belongs_to_the_revision_it_was_worked_out_of(db: Database) -> None:
    job = jobs.create(db, "A", "a")
    jobs.sum_up(db, [(job.id, 1, "short", 4)])
    (line,) = jobs.page(db, 9).jobs
    assert (line.summary, line.summed_at) == ("short", 4)
    jobs.save(db, job.id, 1, "A", "b")
    (line,) = jobs.page(db, 9).jobs
    assert (line.revision, line.summary) == (2, None)


def test_the_way_back_is_the_way_the_job_was_made(db: Database) -> None:
    job = jobs.create(db, "A", "one")
    jobs.save(db, job.id, 1, "A", "two")
    jobs.undo(db, job.id, 2)
    jobs.save(db, job.id, 1, "A", "three")
    assert [r.document for r in jobs.back_from(db, job.id)] == ["one"]
    jobs.save(db, job.id, 3, "A", "four")
    assert [r.document for r in jobs.back_from(db, job.id)] == ["three", "one"]
    moved = jobs.go_back_to(db, job.id, 4, 1)
    assert (moved.document, moved.can_redo) == ("one", True)


@examples("answers lost")
@given(st.lists(st.tuples(st.sampled_from("su r".replace(" ", "")), st.integers(0, 2), st.booleans()), max_size=14))
def test_answers_lost_on_the_way_change_nothing(
    tmp_path_factory: pytest.TempPathFactory, steps: list[tuple[str, int, bool]]
) -> None:
    """Whoever asks again after a lost answer, under the same key, stands where one stands who lost none."""
    folder = tmp_path_factory.mktemp("lost")
    sure, unsure = Database(folder / "sure.sqlite3"), Database(folder / "unsure.sqlite3")
    ids = {id(db): jobs.create(db, "A", "start").id for db in (sure, unsure)}
    heads = dict.fromkeys(ids, 1)
    for number, (what, text, lost) in enumerate(steps):
        for db in (sure, unsure):
            for _ in range(2 if lost and db is unsure else 1):
                at, read, key = ids[id(db)], heads[id(db)], f"key {number}"
                if what == "s":
                    got = jobs.save(db, at, read, "A", f"text {text}", key)
                else:
                    got = (jobs.undo if what == "u" else jobs.redo)(db, at, read, key)
            heads[id(db)] = got.revision
    a, b = jobs.get(sure, ids[id(sure)]), jobs.get(unsure, ids[id(unsure)])
    assert (a.revision, a.document, a.can_undo, a.can_redo) == (b.revision, b.document, b.can_undo, b.can_redo)
    sure.close()
    unsure.close()


def test_keys_are_forgotten_before_what_they_came_to_may_be_let_go(db: Database) -> None:
    assert timedelta(days=keys.KEPT_DAYS) < thinning.WHOLE
    entries.save(db, "kit", "old", 0, "one", "old key")
    entries.save(db, "kit", "new", 0, "one", "new key")
    with db.write() as connection:
        connection.execute("UPDATE answered SET at = '2020-01-01T00:00:00.000Z' WHERE key = 'old key'")
    keys.forget_old(db)
    with db.read() as connection:
        assert [row["key"] for row in connection.execute("SELECT key FROM answered")] == ["new key"]


def test_what_sees_to_itself_backs_up_then_lets_go_of_what_is_old(
    db: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    done: list[str] = []
    monkeypatch.setattr(keys, "forget_old", lambda _: done.append("keys"))
    monkeypatch.setattr(thinning, "thin", lambda _: done.append("revisions"))
    Keeper(db).look()
    Keeper(db).look()
    assert done == ["keys", "revisions"], "once a day"
    assert len(backup.every(db.path)) == 1
