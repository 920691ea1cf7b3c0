"""Remembering what a pure function came to last time, so that an edit to one layer does not compute the others."""

from collections.abc import Callable, Hashable
from functools import wraps
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")
Named = Callable[..., R]


def remembered(most: int) -> Callable[[Callable[P, R]], Named[R]]:
    """Make a pure function remember its last arguments and result under a name, for `most` names.

    The made function takes the name first. Arguments equal to the last ones under that name give the result
    again; they need not be hashable, and identical objects compare at once. The oldest name is forgotten first.
    """

    def decorate(function: Callable[P, R]) -> Named[R]:
        store: dict[Hashable, tuple[tuple[object, ...], R]] = {}

        @wraps(function)
        def call(name: Hashable, *args: P.args, **kwargs: P.kwargs) -> R:
            last = store.get(name)
            if last is not None and last[0] == args:
                return last[1]
            result = function(*args, **kwargs)
            for oldest in list(store)[: max(0, len(store) - most + 1)]:  # a copy: other threads may write
                store.pop(oldest, None)
            store[name] = (args, result)
            return result

        return call

    return decorate
