"""The plans that pages hold, so that what is sent next is what differs."""

from collections import OrderedDict
from threading import Lock

from lumso.core.plan.plan import Plan
from lumso.store.ids import new_id

MOST_PLANS = 48
"""How many plans that pages hold are remembered. A page whose plan is forgotten gets it whole."""


class Plans:
    """The plans that pages hold, by the name they got with them: what is sent next is what differs."""

    def __init__(self, most: int = MOST_PLANS) -> None:
        self.most = most
        self._held: OrderedDict[str, Plan] = OrderedDict()
        self._lock = Lock()

    def keep(self, plan: Plan) -> str:
        """The name of a plan that is sent."""
        name = new_id()
        with self._lock:
            self._held[name] = plan
            while len(self._held) > self.most:
                self._held.popitem(last=False)
        return name

    def get(self, name: str) -> Plan | None:
        """A plan that was sent; None where it is forgotten."""
        with self._lock:
            if name in self._held:
                self._held.move_to_end(name)
            return self._held.get(name)
