"""A pot's summary as a document."""

from lumso.core.log.summary import PotSummary

from .reading import read_json
from .validators import adapter

SUMMARY = adapter(PotSummary)


def summary_to_json(summary: PotSummary) -> str:
    """The summary as JSON text."""
    return SUMMARY.dump_json(summary).decode()


def summary_from_json(text: str) -> PotSummary:
    """A summary of JSON text. Raises UnfitDocument."""
    return read_json(SUMMARY, text, "A pot")
