"""Work that would keep others waiting, done by at most two processes beside the server.

A worker is started at the first need and kept. When whoever asked is gone, or it takes longer than anybody waits, it is
ended, and another takes its place at the next need. It ends by itself when the server does.
"""

import asyncio
import atexit
import os
import pickle
import select
import subprocess
import sys
import time
from collections.abc import Callable
from functools import partial
from queue import Empty, LifoQueue
from struct import Struct
from threading import BoundedSemaphore, Event, Thread
from typing import Annotated, Any, BinaryIO, ParamSpec, TypeVar, cast

from fastapi import Depends, HTTPException, Request

from lumso.core.errors import LumsoError
from lumso.services.beside import Beside
from lumso.store.errors import TooLong

from .errors import ProblemOut, Refusal, problem_of

MOST = 2
LONGEST_S = 30.0
LOOK_EVERY_S = 0.1
GONE_EVERY_S = 1.0
LENGTH = Struct(">Q")
COMMAND = [sys.executable, "-c", "import sys; from lumso.api.workers import serve; serve(int(sys.argv[1]))"]

P = ParamSpec("P")
R = TypeVar("R")


def _send(pipe: BinaryIO, value: object) -> None:
    text = pickle.dumps(value, pickle.HIGHEST_PROTOCOL)
    pipe.write(LENGTH.pack(len(text)) + text)
    pipe.flush()


def _receive(pipe: BinaryIO) -> Any:
    """The next value; EOFError where the other side is gone."""
    head = pipe.read(LENGTH.size)
    if len(head) < LENGTH.size:
        raise EOFError
    return pickle.loads(pipe.read(LENGTH.unpack(head)[0]))


def _bound(spare_mb: int) -> None:
    """Take no more memory than so much beyond what is held now; more is a MemoryError. Where that can be said."""
    try:
        import resource

        with open("/proc/self/statm", encoding="ascii") as held:
            now = int(held.read().split()[0]) * resource.getpagesize()
        resource.setrlimit(resource.RLIMIT_AS, (now + spare_mb * 1024**2,) * 2)
    except (ImportError, OSError, ValueError):
        return


def _end_with_the_server() -> None:
    """End when the server is gone, also where it was killed while this is in the midst of something."""
    server = os.getppid()

    def look() -> None:
        while os.getppid() == server:
            time.sleep(GONE_EVERY_S)
        os._exit(1)

    Thread(target=look, name="server", daemon=True).start()


def serve(spare_mb: int = 0) -> None:
    """Be a worker: do what is asked, one after the other, until nobody asks any more."""
    asked, answers, bound = sys.stdin.buffer, sys.stdout.buffer, not spare_mb
    _end_with_the_server()
    sys.stdout = sys.stderr  # what is printed is no answer
    while True:
        try:
            work, args = _receive(asked)
        except EOFError:
            return
        if not bound:  # what it works with is loaded by now
            _bound(spare_mb)
            bound = True
        try:
            answer: object = ("done", work(*args))
        except LumsoError as error:
            answer = ("refused", problem_of(error))
        except Exception as error:
            answer = ("broken", f"{type(error).__name__}: {error}")
        _send(answers, answer)


class Broken(Exception):
    """A mistake of ours in what a worker was asked."""


class _Worker:
    def __init__(self, spare_mb: int) -> None:
        self.process = subprocess.Popen([*COMMAND, str(spare_mb)], stdin=subprocess.PIPE, stdout=subprocess.PIPE)
        self.asked = cast(BinaryIO, self.process.stdin)
        self.answers = cast(BinaryIO, self.process.stdout)

    def end(self) -> None:
        self.process.kill()
        self.process.wait()
        self.asked.close()
        self.answers.close()


class Workers:
    """The processes beside the server."""

    def __init__(self, most: int = MOST, longest_s: float = LONGEST_S, spare_mb: int = 0) -> None:
        """`spare_mb` is how much memory each may take for its work, 0 for as much as there is."""
        self.longest_s, self.spare_mb = longest_s, spare_mb
        self._free: LifoQueue[_Worker] = LifoQueue()
        self._places = BoundedSemaphore(most)
        atexit.register(self.close)

    async def run(self, request: Request, work: Callable[P, R], *args: P.args, **none: P.kwargs) -> R:
        """What `work`, a function of a module, comes to for whoever sent a request.

        Raises Refusal, TooLong, and HTTPException 499 when nobody waits for it any more.
        """
        gone = Event()
        done = asyncio.ensure_future(asyncio.to_thread(self._run, gone, work, args))
        try:
            while True:
                if (await asyncio.wait({done}, timeout=LOOK_EVERY_S))[0]:
                    return cast(R, done.result())
                if await request.is_disconnected():
                    gone.set()
        finally:
            gone.set()  # also where the server ends in the midst of it

    def close(self) -> None:
        """End those that are free; those at work end when they are done."""
        while True:
            try:
                self._free.get_nowait().end()
            except Empty:
                return

    def _run(self, gone: Event, work: Callable[..., object], args: tuple[object, ...]) -> object:
        until = time.monotonic() + self.longest_s
        while not self._places.acquire(timeout=LOOK_EVERY_S):
            _look(gone, until)
        try:
            return self._ask(gone, until, work, args)
        finally:
            self._places.release()

    def _ask(self, gone: Event, until: float, work: Callable[..., object], args: tuple[object, ...]) -> object:
        try:
            worker = self._free.get_nowait()
        except Empty:
            worker = _Worker(self.spare_mb)
        try:
            _send(worker.asked, (work, args))
            while not select.select([worker.answers], [], [], LOOK_EVERY_S)[0]:
                _look(gone, until)
            how, answer = _receive(worker.answers)
        except (EOFError, OSError):
            worker.end()
            raise Broken("a worker ended in the midst of its work") from None
        except BaseException:
            worker.end()
            raise
        self._free.put(worker)
        if how == "refused":
            raise Refusal(cast(ProblemOut, answer))
        if how == "broken":
            raise Broken(answer)
        return answer


def _look(gone: Event, until: float) -> None:
    """Raises where nobody waits any more, or nobody would."""
    if gone.is_set():
        raise HTTPException(499, "Whoever asked is gone.")
    if time.monotonic() > until:
        raise TooLong("That is too large: nobody waits that long. Ask for less at once, or for larger measures.")


def beside(workers: Workers, request: Request) -> Beside:
    """What a service is given to have something done by workers, for whoever sent a request."""
    return partial(workers.run, request)


def _beside(request: Request) -> Beside:
    return beside(request.app.state.workers, request)


BesideIt = Annotated[Beside, Depends(_beside)]
