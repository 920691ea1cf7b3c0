"""Days without the search for the best of them, which takes a core for seconds."""

from collections.abc import Callable
from typing import Any

from fastapi.concurrency import run_in_threadpool

from lumso.core.days.settle import Ask, settle
from lumso.core.days.view import days_of


class AtOnce:
    """In place of the processes that search: the days found at once. What is searched for is tried where a test asks
    for the search itself."""

    async def run(self, request: object, work: Callable[[Any], Any], ask: Any) -> Any:
        """What is asked, without the process beside the server."""
        if isinstance(ask, Ask):
            return await run_in_threadpool(lambda: days_of(settle(ask)))
        return await run_in_threadpool(work, ask)
