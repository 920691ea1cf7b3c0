"""The checker: every rule looked for in a stack before a brush is wet."""

from ..findings import GRADES, Finding
from ..stack import Stack
from . import beneath, colours, order, sanding, sealing, texture, waits, water, wax
from .rule import RULES, Rule

__all__ = ["RULES", "Rule", "check", "worst"]
MODULES = (beneath, wax, water, waits, sealing, texture, sanding, colours, order)


def check(stack: Stack, at: str) -> tuple[Finding, ...]:
    """What the rules find in a stack, the lowest boundary first, the worst first at each.

    `at` is the zone's JSON pointer. A finding the painter means carries the reason; it stays in the list.
    """
    meant = {(a.rule, a.layer): a.reason for a in stack.zone.accepted}
    found = []
    for rule in RULES.values():
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
                hit.ways,
                meant.get((rule.slug, above)),
            )
            found.append((hit.above, GRADES.index(finding.grade), finding))
    found.sort(key=lambda f: f[:2])
    return tuple(finding for _, _, finding in found)


def worst(findings: tuple[Finding, ...]) -> str:
    """The worst grade among findings that nobody has accepted; "" for none."""
    open_ones = [f for f in findings if f.accepted is None]
    return min((f.grade for f in open_ones), key=GRADES.index, default="")
