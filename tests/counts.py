"""How much each slow proof does: a sample wherever the tests run, all of it by `make proof`. One table, and no other.

A test that repeats something asks here how often; one that takes a minute whatever it does is marked `slow_proof`, and
runs by `make proof` alone.
"""

import os
from collections.abc import Mapping, Sequence
from typing import TypeVar

import pytest
from hypothesis import HealthCheck, settings

PROOF = os.environ.get("LUMSO_PROOF") == "1"

COUNTS: Mapping[str, tuple[int, int]] = {
    # hypothesis, where a test says nothing else
    "examples": (30, 500),
    "any stack": (15, 400),
    "any stack over the API": (25, 600),
    "any answer over the API": (40, 1000),
    "any job in any hours": (8, 200),
    "any work": (25, 600),
    "boxes of a layout": (12, 300),
    "kits against all fillings": (20, 400),
    "packs against all baskets": (25, 400),
    "points counted on a layout": (8, 150),
    "out of reach": (15, 100),
    "sections of a face": (12, 300),
    "shares of a sum": (40, 500),
    "small days against all there are": (20, 1000),
    "small days": (15, 400),
    "undo after letting go": (10, 200),
    "answers lost": (10, 200),
    "saves in any order": (10, 200),
    # repetitions by a seed
    "calls of the API": (2, 200),
    "hidden pots of a kind": (40, 300),
    "kills while acts are noted": (6, 300),
    "kills while all is done": (4, 300),
    "mutated requests": (40, 20_000),
    "kills while jobs are saved": (4, 300),
    "colours found again": (25, 100),
    "colours within their range": (60, 100),
    "columns within their range": (40, 100),
    "flipped bits of a backup": (60, 3000),
    "painters": (300, 1200),
    "jobs that run short": (200, 1000),
    "finishes that are sealed": (6, 1000),
    "recipes with a remedy": (14, 1000),
    "jobs on paper": (3, 1000),
}
"""What is repeated: how often in CI, how often by `make proof`."""

slow_proof = pytest.mark.slow_proof

T = TypeVar("T")


def count(of: str) -> int:
    """How often something of the table is done now."""
    return COUNTS[of][PROOF]


def examples(of: str) -> settings:
    """So many examples of a property, the same every time in CI."""
    return settings(max_examples=count(of), deadline=None, suppress_health_check=list(HealthCheck))


def some(of: str, among: Sequence[T]) -> list[T]:
    """So many of a sequence, spread over all of it."""
    most = min(count(of), len(among))
    return [among[n * len(among) // most] for n in range(most)]
