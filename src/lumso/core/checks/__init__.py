"""The checker: every rule looked for in a stack before a brush is wet.

A remedy is offered only where it holds: it is tried on the stack, the finding must be gone, and nothing new may fail.
"""

from collections import Counter
from collections.abc import Iterable
from dataclasses import replace
from itertools import count

from ..changes.change import Remedy, apply
from ..errors import LumsoError
from ..layers.laid import lay
from ..layers.stack import Stack
from . import beneath, colours, ground, order, safety, sanding, sealing, stains, texture, waits, water, wax
from .findings import GRADES, Finding
from .rule import RULES, Rule

__all__ = ["RULES", "Rule", "brings", "check", "holds", "look", "worst"]
MODULES = (safety, stains, beneath, ground, wax, water, waits, sealing, stains, texture, sanding, colours, order)


def look(stack: Stack, at: str = "", rules: Iterable[Rule] | None = None) -> tuple[Finding, ...]:
    """What the rules find in a stack, the lowest boundary first, the worst first at each; remedies as the rules name
    them, not yet tried.

    `at` is the zone's JSON pointer, `rules` those that are asked, all where none are given. A finding the painter means
    carries the reason; it stays in the list.
    """
    meant = {(a.rule, a.layer): a.reason for a in stack.zone.accepted}
    found = []
    for rule in RULES.values() if rules is None else rules:
        for hit in rule.look(stack):
            below = stack.laid[hit.above - 1].layer.id if hit.above > 0 else ""
            above = stack.laid[hit.above].layer.id if hit.above < len(stack.laid) else ""
            where = min(hit.above, len(stack.laid) - 1)
            pointer = f"{at}/layers/{where}" if hit.above else f"{at}/ground"
            finding = Finding(
                hit.grade or rule.grade,
                pointer,
                hit.says,
                rule.reason,
                rule.provenance,
                rule.slug,
                rule.sure,
                below,
                above,
                hit.remedies,
                None if (hit.grade or rule.grade) == "can hurt" else meant.get((rule.slug, above)),
            )
            found.append((hit.above, GRADES.index(finding.grade), finding))
    found.sort(key=lambda f: f[:2])
    return tuple(finding for _, _, finding in found)


def _failing(findings: tuple[Finding, ...]) -> set[str]:
    return {f.rule for f in findings if f.grade == "will fail"}


def _after(stack: Stack, way: Remedy, rules: Iterable[Rule] | None) -> tuple[Finding, ...] | None:
    """What the rules find once a remedy was taken; None where it cannot be."""
    known = {id(one.layer): one for one in stack.laid}
    try:
        zone = apply(stack.zone, way.changes, stack.catalogue, (f"tried-{n}" for n in count()))
        laid = tuple(known.get(id(layer)) or lay(layer, stack.catalogue) for layer in zone.layers)
    except LumsoError:
        return None
    return look(replace(stack, zone=zone, laid=laid), rules=rules)


def brings(stack: Stack, findings: tuple[Finding, ...], way: Remedy) -> Finding | None:
    """The worst finding above *good to know* that taking a remedy would bring; None for one that brings none.

    `findings` are those of the stack as it is. Rules are counted, not places: a remedy moves those.
    """
    after = _after(stack, way, None) or ()
    alarms = [f for f in after if f.grade != "good to know" and f.accepted is None]
    had = Counter(f.rule for f in findings if f.grade != "good to know" and f.accepted is None)
    more = Counter(f.rule for f in alarms) - had
    return min((f for f in alarms if more[f.rule]), key=lambda f: GRADES.index(f.grade), default=None)


def holds(stack: Stack, findings: tuple[Finding, ...], finding: Finding, way: Remedy) -> bool:
    """Whether a remedy does what it says on this stack: its finding is gone and no other rule begins to fail.

    `findings` are those of the stack as it is.
    """
    after = _after(stack, way, [r for r in RULES.values() if r.may_fail or r.slug == finding.rule])
    if after is None:
        return False
    place = (finding.rule, finding.above)
    left, had = (Counter((f.rule, f.above) for f in fs)[place] for fs in (after, findings))
    return left < had and _failing(after) <= _failing(findings)


def check(stack: Stack, at: str = "") -> tuple[Finding, ...]:
    """What `look` finds, with only the remedies that hold."""
    found = look(stack, at)
    return tuple(
        replace(f, remedies=tuple(w for w in f.remedies if holds(stack, found, f, w))) if f.remedies else f
        for f in found
    )


def worst(findings: tuple[Finding, ...]) -> str:
    """The worst grade among findings that nobody has accepted; "" for none. What can hurt a person is apart: see
    `GRADES`."""
    open_ones = [f for f in findings if f.accepted is None and f.grade != "can hurt"]
    return min((f.grade for f in open_ones), key=GRADES.index, default="")
