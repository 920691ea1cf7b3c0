"""What an event says beside what was said: once, whoever says it; and how long things took."""

from lumso.core.days.heard import SHORTEST_MIN, Took, said_already, took
from lumso.core.log.acts import Act, Begun, Discarded, Poured, SawDry, Stirred, Stuff
from lumso.core.log.event import Event
from lumso.core.work.operations import Operation

WATER = Stuff("water", "water", "water", "water", False, 1.0, 1.0)
LAY = Operation("lay", "lay", "Brush it on", job="job", batch="b", hands_on_min=20.0)
BEGUN = Begun("begun", "p", "b", recipe="wash", technique="brushed")


def acted(name: str, act: Act, at: float) -> Event:
    return Event(name, "job", "", "noted", at, act=act)


def test_what_two_devices_pressed_is_said_once_until_something_changes_it() -> None:
    done = Event("1", "job", "lay", "done", 10)
    assert said_already(Event("2", "job", "lay", "done", 11), [done]) is done
    assert said_already(Event("2", "job", "lay", "gone wrong", 11), [done]) is None
    back = Event("3", "job", "lay", "retracted", 12, retracts="1")
    assert said_already(Event("2", "job", "lay", "done", 13), [done, back]) is None
    assert said_already(Event("4", "job", "lay", "retracted", 14, retracts="1"), [done, back]) is back


def test_a_batch_has_one_open_pot() -> None:
    first = acted("1", BEGUN, 0)
    second = acted("2", Begun("begun", "q", "b"), 1)
    assert said_already(second, [first]) is first
    assert said_already(acted("2", Begun("begun", "q", "c"), 1), [first]) is None
    assert said_already(second, [first, acted("3", Discarded("discarded", "p"), 0.5)]) is None


def test_stirred_again_is_news_only_after_a_pour_into_that_pot() -> None:
    first, stirred = acted("1", BEGUN, 0), acted("2", Stirred("stirred", "p"), 2)
    again = acted("9", Stirred("stirred", "p"), 5)
    assert said_already(again, [first]) is None
    assert said_already(again, [first, stirred]) is stirred
    assert said_already(again, [first, stirred, acted("3", Poured("poured", "p", WATER, 5.0, "scale"), 4)]) is None
    assert said_already(again, [first, stirred, acted("3", Poured("poured", "q", WATER, 5.0, "scale"), 4)]) is stirred


def test_work_from_begun_to_done_is_a_pace_and_work_marked_afterwards_is_none() -> None:
    pot, begun = acted("1", BEGUN, 0), Event("2", "job", "lay", "begun", 100)

    def done(after: float) -> Event:
        return Event("3", "job", "lay", "done", 100 + after, planned=LAY)

    assert took(done(30), [pot, begun]) == Took("pace", "brushed", 20.0, 30.0)
    assert took(done(SHORTEST_MIN - 0.1), [pot, begun]) is None
    assert took(done(30), [pot]) is None
    assert took(done(30), [begun]) is None


def test_a_film_seen_is_beside_its_wait_without_what_the_log_had_made_of_it() -> None:
    seen = acted("1", SawDry("saw dry", "a>b", False, 10, planned_min=60, after_min=50, recipe="wash", factor=1.5), 50)
    assert took(seen, []) == Took("wait", "wash", 40.0, 50.0, dry=False)
    assert took(acted("1", SawDry("saw dry", "a>b", True), 50), []) is None
