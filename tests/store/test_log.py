"""The log on disk: every acknowledged act is there, however the server ends; and it is found quickly enough."""

import random
from pathlib import Path

import pytest

from lumso.store import events, jobs, pots
from lumso.store.database import Database
from lumso.store.events import NewEvent
from tests.counts import count
from tests.strain import filled, killed_while_logging, killed_while_saving, killed_while_working, mutated_requests


def test_every_acknowledged_act_outlives_a_kill(tmp_path: Path) -> None:
    times = count("kills while acts are noted")
    assert killed_while_logging(tmp_path / "log.sqlite3", times, random.Random(1)) > times


def test_every_acknowledged_save_outlives_a_kill_and_nothing_is_seeded_by_half(tmp_path: Path) -> None:
    times = count("kills while jobs are saved")
    assert killed_while_saving(tmp_path, times, random.Random(7)) > times


def test_pours_purchases_photographs_and_restores_outlive_a_kill(tmp_path: Path) -> None:
    times = count("kills while all is done")
    assert killed_while_working(tmp_path / "all.sqlite3", times, random.Random(28)) > times


def test_requests_with_bytes_changed_break_nothing_and_hold_nobody_up(tmp_path: Path) -> None:
    times = count("mutated requests")
    answered, longest_s = mutated_requests(tmp_path / "mutated.sqlite3", times, random.Random(29))
    assert answered > times / 3
    print(f"{answered} of {times} answered; another client waited at most {longest_s:.2f} s")


def test_words_are_found_wherever_they_stand_the_newest_first(tmp_path: Path) -> None:
    db = Database(tmp_path / "log.sqlite3")
    filled(db, 300)
    found, more = pots.found(db, "BLUE glaze", limit=5)
    assert [p.id for p in found] == ["p290", "p278", "p266", "p254", "p242"]  # 2 of 4, 2 of 3: every twelfth
    assert more
    assert pots.found(db, "mofa-17 glaze")[0][-1].id == "p17"
    assert pots.found(db, "mofa-18 glaze boat")[0] == []
    assert [p.id for p in pots.found(db, "mofa-1 ", limit=400)[0]][-1] == "p1"
    within, _ = pots.found(db, from_min=29_000_000 + 30, until_min=29_000_000 + 90)
    assert [p.id for p in within] == ["p2", "p1"]
    assert pots.count(db) == 300
    db.close()


def test_an_event_is_added_once_and_refused_under_the_id_of_another(tmp_path: Path) -> None:
    from lumso.store import jobs
    from lumso.store.errors import NotFound, StaleRevision

    db = Database(tmp_path / "log.sqlite3")
    job = jobs.create(db, "A job", '{"format": "lumso-job"}').id
    first = events.add(db, NewEvent("e1", job, 1.0, 1.0, "{}", "p1"))
    assert events.add(db, NewEvent("e1", job, 1.0, 1.0, "{}", "p1")).revision == first.revision
    with pytest.raises(StaleRevision):
        events.add(db, NewEvent("e1", job, 2.0, 1.0, "{}"))
    with pytest.raises(NotFound):
        events.add(db, NewEvent("e2", "nobody", 1.0, 1.0, "{}"))
    events.add(db, NewEvent("e3", "nobody", 3.0, 3.0, "{}", "p2", "p1"))  # its job is gone, its jar is not
    events.add(db, NewEvent("e4", job, 4.0, 4.0, "{}", "p9"))
    assert [e.id for e in events.of_pots(db, ["p2"])] == ["e1", "e3"]
    assert [e.id for e in events.of_pots(db, ["p9"])] == ["e4"]
    db.close()


def test_events_are_told_in_the_order_they_were_noted_whenever_they_arrive(tmp_path: Path) -> None:
    """What a device noted while it was away comes late, and stands where it was noted; of one moment, by their ids."""
    db = Database(tmp_path / "log.sqlite3")
    job = jobs.create(db, "Rack", "{}").id
    for name, noted in (("c", 3.0), ("a", 1.0), ("d", 2.0), ("b", 2.0)):
        events.add(db, NewEvent(name, job, 9.0 - noted, noted, "{}", "p1"))
    assert [e.id for e in events.of_jobs(db, [job])] == ["a", "b", "d", "c"]
    assert [e.id for e in events.of_pots(db, ["p1"])] == ["a", "b", "d", "c"]
    db.close()


def test_the_events_of_a_pot_are_found_by_their_index(db: Database) -> None:
    """With 20,000 acts a scan for each jar on the shelf takes seconds."""
    with db.read() as connection:
        plan = " ".join(
            str(row["detail"]) for row in connection.execute(f"EXPLAIN QUERY PLAN {events.BY_POT}", ("p", "p"))
        )
    assert "event_by_pot" in plan
    assert "event_by_jar" in plan
    assert "SCAN event" not in plan
