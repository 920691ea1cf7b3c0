"""Ids for rows, zones and layers: never used twice, and in the order they were made."""

from uuid_utils import uuid7


def new_id() -> str:
    """A UUIDv7 as text."""
    return str(uuid7())
