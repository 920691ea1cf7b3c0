"""What goes wrong in what Lumso does, beyond what the core and the store say."""

from lumso.core.errors import LumsoError


class CannotWorkOut(LumsoError):
    """A job that a mistake of ours keeps from being worked out. It is kept, and an earlier version of it may open."""
