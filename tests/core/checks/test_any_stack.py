"""Laws that hold for any stack a painter can put together."""

from dataclasses import replace
from itertools import count

from hypothesis import assume, given
from hypothesis import strategies as st

from lumso.core.advice import advise, remedied
from lumso.core.changes.change import apply
from lumso.core.checks import RULES, worst
from lumso.core.checks.findings import GRADES
from lumso.core.job.job import Acceptance
from lumso.core.plan.section import cut
from tests.counts import examples

from .stacks import C, Case, layer, stack

GRITS = st.sampled_from([80, 120, 180, 320])
PURPOSES = st.sampled_from(["scuff", "soften", "bite", "reveal", "level", "between clear coats"])
USES = ("hands", "water", "heat", "food", "feet", "children", "weather", "buyer")


@st.composite
def layers(draw: st.DrawFn) -> object:
    recipe = draw(st.sampled_from(sorted(C.recipes)))
    technique = draw(st.sampled_from(C.recipes[recipe].techniques))
    return layer(
        recipe,
        technique,
        wait=draw(st.sampled_from([None, 0.5, 2, 12, 24, 200])),
        sand=draw(st.one_of(st.none(), st.tuples(GRITS, PURPOSES))),
        hex=draw(st.sampled_from(["#f1ead8", "#26282c", "#b02a24", "#4f6f86"])),
        coats=draw(st.integers(1, 3)),
        thickness_mm=draw(st.sampled_from([0.5, 1.0, 2.0])),
    )


@st.composite
def cases(draw: st.DrawFn) -> Case:
    """Up to six layers on any ground, for any use, prepared in any way, in any room that dries."""
    return stack(
        draw(st.sampled_from(sorted(C.grounds))),
        *draw(st.lists(layers(), min_size=1, max_size=6)),  # type: ignore[arg-type]
        use=" ".join(draw(st.lists(st.sampled_from(USES), unique=True, max_size=3))),
        prep=" ".join(draw(st.lists(st.sampled_from(sorted(C.preparations)), unique=True, max_size=4))),
        room=draw(st.sampled_from([(20.0, 0.5), (28.0, 0.35), (12.0, 0.75)])),
        upright=draw(st.booleans()),
        part=draw(st.sampled_from(["front", "doors", "drawers", "top"])),
        old=draw(st.sampled_from(["none", "not tested", "test planned", "none found", "found"])),
        condition=draw(st.sampled_from(["sound", "worn", "flaking"])),
    )


@given(cases())
def test_findings_are_in_order_named_and_pinned_to_a_boundary(case: Case) -> None:
    found = case.findings()
    places = {"": len(case.zone.layers)} | {x.id: i for i, x in enumerate(case.zone.layers)}
    assert [places[f.above] for f in found] == sorted(places[f.above] for f in found)
    for f in found:
        assert f.rule in RULES
        assert f.grade in GRADES
        assert places[f.above] == (places[f.below] + 1 if f.below else 0) or f.above == ""
        assert f.reason == RULES[f.rule].reason


@examples("any stack")
@given(cases())
def test_any_way_out_ends_its_finding_and_brings_no_new_failure(case: Case) -> None:
    before = case.findings()
    failing = {f.rule for f in before if f.grade == "will fail"}
    for finding in before:
        for way in finding.remedies:
            zone = apply(case.zone, way.changes, C, (f"new{n}" for n in count()))
            after = case.bench.findings(zone)
            place = (finding.rule, finding.above)
            left, had = (sum((f.rule, f.above) == place for f in fs) for fs in (after, before))
            assert left < had, (finding.rule, way.says)
            fresh = {f.rule for f in after if f.grade == "will fail"} - failing
            assert fresh == set(), (finding.rule, way.says)


@examples("any stack")
@given(cases())
def test_mending_leaves_only_what_nothing_can_mend(case: Case) -> None:
    zone, done = remedied(case.zone, case.bench, (f"new{n}" for n in count()), seal=False)
    left = [f for f in case.bench.findings(zone) if f.grade == "will fail"]
    assert len(done) <= 24
    assert all(m.reason for m in done)
    if len(done) < 24:
        for f in left:
            tried = {m.did for m in done if m.rule == f.rule}
            assert {w.says for w in f.remedies} <= tried, f.rule


@given(cases())
def test_accepting_everything_leaves_nothing_open_and_changes_nothing_else(case: Case) -> None:
    before = case.findings()
    meant = tuple(Acceptance(f.rule, f.above, "on purpose") for f in before)
    after = case.bench.findings(replace(case.zone, accepted=meant))
    assert worst(after) == ""
    assert [replace(f, accepted=None) for f in after] == list(before)


@given(cases())
def test_the_section_of_any_stack_is_in_order_and_in_its_frame(case: Case) -> None:
    made = case.bench.stack(case.zone)
    section = cut(made, case.findings())
    tops = [b.top for b in section.bands]
    assert tops == sorted(tops)
    assert all(-1e-6 <= b.top <= b.floor <= section.ground_y + 1e-6 for b in section.bands)
    for band in section.bands:
        assert all(-1e-6 <= p.x <= section.width + 1e-6 for p in band.outline)
        assert all(band.top - 0.02 <= p.y <= band.floor + 0.02 for p in band.outline)
    assert sum(n.count for n in section.notches) == len(case.findings())


@examples("any stack")
@given(cases())
def test_advisers_have_an_answer_for_any_stack(case: Case) -> None:
    assume(any(x.touched >= 0.9 for x in case.zone.layers))
    said = advise(case.zone, case.bench, (f"new{n}" for n in count()))
    assert len(said.sealers) == 8
    assert sum(s.verdict == "best" for s in said.sealers) <= 1
    for sealer in said.sealers:
        assert sealer.verdict != "not here" or sealer.against
    order = {"best": 0, "will do": 1, "not here": 2}
    assert [order[s.verdict] for s in said.sealers] == sorted(order[s.verdict] for s in said.sealers)
    for coats in said.coats:
        assert coats.coats is None or 1 <= coats.coats <= 12
