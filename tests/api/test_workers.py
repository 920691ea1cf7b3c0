"""Work beside the server: done by at most two processes, ended when nobody waits for it, refused in words."""

import asyncio
import os
import threading
import time
from collections.abc import Iterator
from typing import Any, cast

import pytest
from fastapi import HTTPException, Request
from starlette.testclient import TestClient

from lumso.api.errors import Refusal
from lumso.api.workers import Broken, Workers
from lumso.core.errors import InvalidValue
from lumso.store.errors import TooLong

from .test_jobs import begin


class Asker:
    """Somebody who waits for an answer, until they go."""

    gone = False

    async def is_disconnected(self) -> bool:
        return self.gone


@pytest.fixture
def workers() -> Iterator[Workers]:
    made = Workers()
    yield made
    made.close()


def ask(workers: Workers, work: Any, *args: Any, asker: Asker | None = None) -> Any:
    return asyncio.run(workers.run(cast(Request, asker or Asker()), work, *args))


# What workers are asked: functions of a module they can find, here and there.


def square(n: int) -> tuple[int, int]:
    return n * n, os.getpid()


def slow(seconds: float) -> int:
    threading.Event().wait(seconds)
    return os.getpid()


def refuses() -> None:
    raise InvalidValue("That is no spoon.", value=7, allowed="a spoon", field="/spoon")


def breaks() -> None:
    raise ZeroDivisionError("secret detail")


def dies() -> None:
    os._exit(3)


def prints() -> str:
    print("not an answer")
    return "an answer"


def test_a_worker_is_kept_and_is_another_process(workers: Workers) -> None:
    (four, first), (nine, second) = ask(workers, square, 2), ask(workers, square, 3)
    assert (four, nine) == (4, 9)
    assert first == second != os.getpid()


def test_what_it_refuses_is_refused_in_its_words_and_it_goes_on(workers: Workers) -> None:
    with pytest.raises(Refusal) as caught:
        ask(workers, refuses)
    problem = caught.value.problem
    assert (problem.status, problem.faults[0].at, problem.faults[0].allowed) == (422, "/spoon", "a spoon")
    with pytest.raises(Broken):
        ask(workers, breaks)
    assert ask(workers, prints) == "an answer"


def test_one_that_dies_is_replaced(workers: Workers) -> None:
    _, first = ask(workers, square, 2)
    with pytest.raises(Broken):
        ask(workers, dies)
    assert ask(workers, square, 2)[1] != first


def test_when_nobody_waits_any_more_it_is_ended_and_replaced(workers: Workers) -> None:
    asker = Asker()
    _, first = ask(workers, square, 2)
    threading.Timer(0.3, lambda: setattr(asker, "gone", True)).start()
    start = time.monotonic()
    with pytest.raises(HTTPException) as caught:
        ask(workers, slow, 60.0, asker=asker)
    assert caught.value.status_code == 499
    assert time.monotonic() - start < 30
    with pytest.raises(ProcessLookupError):
        os.kill(first, 0)
    assert ask(workers, square, 2)[1] != first


def test_what_takes_longer_than_anybody_waits_is_refused_in_words(workers: Workers) -> None:
    ask(workers, square, 2)
    workers.longest_s = 0.5
    with pytest.raises(TooLong, match="too large"):
        ask(workers, slow, 60.0)


def test_there_are_never_more_than_two(workers: Workers) -> None:
    async def all_at_once() -> list[int]:
        asker = cast(Request, Asker())
        return list(await asyncio.gather(*(workers.run(asker, slow, 0.05) for _ in range(8))))

    assert len(set(asyncio.run(all_at_once()))) <= 2


def test_a_mistake_in_a_worker_is_answered_without_its_details(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    made = begin(client, ml=300)
    monkeypatch.setattr("lumso.services.printing.measure_all", breaks_on)
    body = {"sequence": 0, "recipe": "salt-wash", "school": "", "want": {"by": "total", "ml": 417.0}}
    reply = client.post("/api/sheet/measure", json=body)
    assert (reply.status_code, reply.json()["title"]) == (500, "Something broke")
    assert "secret" not in reply.text
    assert made


def breaks_on(*_: object) -> None:
    breaks()


def test_what_was_measured_is_remembered(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    body = {"sequence": 0, "recipe": "salt-wash", "school": "", "want": {"by": "total", "ml": 333.0}}
    first = client.post("/api/sheet/measure", json=body)
    assert first.status_code == 200
    monkeypatch.setattr("lumso.services.printing.measure_all", breaks_on)
    assert client.post("/api/sheet/measure", json=body).json() == first.json()
    client.put("/api/workshop", json={"kit": "us-spoons"})
    assert client.post("/api/sheet/measure", json=body).status_code == 500, "with another kit it is looked for anew"
