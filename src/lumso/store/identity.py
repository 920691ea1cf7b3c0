"""Which workshop a database is: an id of its own, made once, that goes with it into backups."""

import json

from . import settings
from .database import Database
from .ids import new_id

KEY = "identity"


def identity(db: Database) -> str:
    """The id of this workshop."""
    kept = settings.get(db, KEY).document
    if kept is None:
        settings.change(db, KEY, lambda before: before or json.dumps(new_id()))
        kept = settings.get(db, KEY).document or '""'
    found: str = json.loads(kept)
    return found
