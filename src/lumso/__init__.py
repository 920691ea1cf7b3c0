"""Lumso: a bench companion for people who finish furniture decoratively."""

__version__ = "0.1.0"
