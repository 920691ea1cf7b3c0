"""Remembering what pure functions came to, so that an edit to one layer does not compute the others."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, TypeVar

R = TypeVar("R")

VERSIONS = 4
"""How many sets of arguments are remembered for one place: an edit and its undo, what is and what if, two windows."""


class Memo:
    """Results of pure functions by place and arguments, the least lately used forgotten first.

    Whoever plans again and again keeps one and hands it in; nothing is remembered outside of it.
    """

    def __init__(self, most: int = 4000) -> None:
        self.most = most
        self._held: OrderedDict[Hashable, list[tuple[tuple[object, ...], Any]]] = OrderedDict()

    def recall(self, place: Hashable, args: tuple[object, ...], make: Callable[[], R]) -> R:
        """What `make` came to when it was last asked at this place with these arguments, else what it comes to now.

        `args` is all that the result depends on. They need not be hashable: they are compared, and identical objects
        compare at once.
        """
        held = self._held.get(place, [])
        for at, (known, result) in enumerate(held):
            if known == args:
                if at:
                    self._held[place] = [held[at], *held[:at], *held[at + 1 :]]  # a new list: other threads may read
                return result  # type: ignore[no-any-return]
        result = make()
        self._held[place] = [(args, result), *held[: VERSIONS - 1]]
        try:
            self._held.move_to_end(place)
            while len(self._held) > self.most:
                self._held.popitem(last=False)
        except KeyError:
            pass  # another thread forgot it first
        return result
