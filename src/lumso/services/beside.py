"""What takes a while: in a process beside, or in a thread aside, so that everybody else is answered meanwhile."""

from collections.abc import Callable
from typing import ParamSpec, Protocol, TypeVar

from anyio import to_thread

P = ParamSpec("P")
R = TypeVar("R")


class Beside(Protocol):
    """Runs a function of a module in a process beside, as long as somebody waits for it."""

    async def __call__(self, work: Callable[P, R], *args: P.args, **none: P.kwargs) -> R: ...


async def aside(work: Callable[P, R], *args: P.args, **more: P.kwargs) -> R:
    """What a function comes to, worked out in a thread of its own."""
    return await to_thread.run_sync(lambda: work(*args, **more))
