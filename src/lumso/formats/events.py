"""An event as a document."""

import json

from lumso.core.log.event import Event

from .reading import read_json
from .validators import adapter

EVENT = adapter(Event)


def to_json(event: Event) -> str:
    """The event as JSON text."""
    return json.dumps(EVENT.dump_python(event, mode="json"), ensure_ascii=False)


def from_json(text: str) -> Event:
    """An event of JSON text. Raises UnfitDocument."""
    return read_json(EVENT, text, "An event")
