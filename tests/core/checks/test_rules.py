"""Every rule of the checker: a stack that it speaks of, and a near one that it does not."""

from itertools import count

import pytest

from lumso.core.changes.change import apply
from lumso.core.checks import RULES

from .fires import FIRES
from .quiet import QUIET
from .stacks import C, Case

FIRING = [(rule, case) for rule, cases in FIRES.items() for case in cases]
RESTING = [(rule, case) for rule, cases in QUIET.items() for case in cases]


def test_every_rule_has_a_stack_it_speaks_of_and_one_it_does_not() -> None:
    assert len(RULES) >= 35
    without = [rule for rule in RULES if not FIRES.get(rule) or not QUIET.get(rule)]
    assert without == []
    assert set(FIRES) | set(QUIET) <= set(RULES)


@pytest.mark.parametrize(("rule", "case"), FIRING, ids=[f"{r}-{i}" for i, (r, _) in enumerate(FIRING)])
def test_it_speaks(rule: str, case: Case) -> None:
    assert rule in case.rules()


@pytest.mark.parametrize(("rule", "case"), RESTING, ids=[f"{r}-{i}" for i, (r, _) in enumerate(RESTING)])
def test_it_keeps_quiet(rule: str, case: Case) -> None:
    assert rule not in case.rules()


WAYS = [(rule, case) for rule, case in FIRING if any(f.rule == rule and f.remedies for f in case.findings())]


@pytest.mark.parametrize(("rule", "case"), WAYS, ids=[f"{r}-{i}" for i, (r, _) in enumerate(WAYS)])
def test_each_way_out_ends_the_finding_and_brings_no_new_failure(rule: str, case: Case) -> None:
    before = case.findings()
    failing = {f.rule for f in before if f.grade == "will fail"}
    for finding in (f for f in before if f.rule == rule):
        for way in finding.remedies:
            zone = apply(case.zone, way.changes, C, (f"new{n}" for n in count()))
            after = case.bench.findings(zone)
            still = [f for f in after if f.rule == rule and (f.above, f.says) == (finding.above, finding.says)]
            assert still == [], way.says
            fresh = {f.rule for f in after if f.grade == "will fail"} - failing
            assert fresh == set(), way.says


def test_what_will_fail_has_a_way_out_unless_only_the_room_can_help() -> None:
    without = {
        f.rule for _, case in FIRING for f in case.findings() if f.grade == "will fail" and not f.remedies
    }  # fmt: skip
    assert without <= {"too-cold-or-damp", "sags"}


def test_findings_name_their_boundary_their_reason_and_their_source() -> None:
    for _, case in FIRING:
        ids = {"", *(x.id for x in case.zone.layers)}
        for f in case.findings():
            assert {f.below, f.above} <= ids
            assert f.reason
            assert f.provenance
            assert f.says.endswith((".", "!"))
            assert f.accepted is None


def test_only_rules_that_say_so_find_what_will_fail() -> None:
    """A remedy is tried with these alone: one that is missing here would let a new failure pass."""
    found = {f.rule for _, case in FIRING for f in case.findings() if f.grade == "will fail"}
    assert found <= {slug for slug, rule in RULES.items() if rule.may_fail}
