"""Test boards: the zone they are for, stepped; measurable; and what is learned from them."""

from dataclasses import replace
from itertools import count
from typing import Any

import pytest

from lumso.core.advice import trial
from lumso.core.boards.board import LEAST_ML, LONGEST_MM, SHORTEST_MM, plan_board, stepped
from lumso.core.boards.offers import ladders_for
from lumso.core.boards.stepping import WRONG, Stepped, one_pot, step_down
from lumso.core.boards.taught import taught
from lumso.core.book.colours import Tint
from lumso.core.book.offers import SEALERS
from lumso.core.book.preparation import SANDED_BACK
from lumso.core.colour.difference import delta_e, lab_of
from lumso.core.colour.spectra import reflectance
from lumso.core.errors import InvalidValue, UnknownEntry
from lumso.core.job.board import Ladder, Rung, SeenColour
from lumso.core.job.job import FromArea, Job, Zone, new_job
from lumso.core.layers.conditions import steady
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.look.look import Look
from lumso.core.mixing.measuring import measure_out
from lumso.core.mixing.needs import needs_of
from lumso.core.plan.plan import plan
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from tests.core.look.making import C, laid

KIT = C.kits["metric-spoons"]
BASE = replace(laid("paint-plain", "#ece3cc", coats=2), id="base")
WASH = replace(laid("colour-wash", "#3f7a78"), id="wash")
SEAL = replace(laid("clear-coat-plain", coats=2), id="seal")
JOB = new_job("Counter", (Zone("z", "Doors", "painted-unsealed", (), (BASE, WASH, SEAL), prep=("degreased",)),))


def rungs(*values: float) -> tuple[Rung, ...]:
    return tuple(Rung(v) for v in values)


def board(*ladders: Ladder, job: Job = JOB) -> Job:
    return plan_board(job, "j1", "z", ladders, KIT, C, (f"b{n}" for n in count()))


WATER = Ladder("share", "wash", rungs(0.3, 0.45, 0.6), "water")


def test_a_board_is_the_zone_once_for_each_step() -> None:
    made = board(WATER)
    assert made.board is not None
    assert [s.code for s in made.board.strips] == ["A", "B", "C"]
    assert [z.name for z in made.zones] == ["A: water 30 %", "B: water 45 %", "C: water 60 %"]
    for zone, strip in zip(made.zones, made.board.strips, strict=True):
        assert zone.ground == "painted-unsealed"
        assert zone.prep == ("degreased",), "prepared as the piece will be"
        assert [x.recipe for x in zone.layers] == ["paint-plain", "colour-wash", "clear-coat-plain"], "and sealed"
        assert strip.zone == zone.id
        assert strip.layer == zone.layers[1].id
    ids = [x.id for z in made.zones for x in z.layers]
    assert len(set(ids)) == 9
    assert not set(ids) & {"base", "wash", "seal"}


def test_a_board_is_planned_by_the_rules_of_the_piece() -> None:
    made = board(WATER)
    worked = work(made, Workshop(), C, steady())
    assert not worked.problems
    washes = [o for o in worked.operations if o.kind == "lay" and o.layer in {s.layer for s in made.board.strips}]  # type: ignore[union-attr]
    assert len(washes) == 3
    assert any(o.kind == "prepare" for o in worked.operations)
    planned = plan(made, Workshop(), C, steady())
    shares = []
    for zone in planned.zones:
        (pot,) = zone.layers[1].pots
        parts = {p.component: p.poured.value for p in pot.mix.parts}
        shares.append(round(parts["water"] / sum(parts.values()), 3))
    assert shares == [0.3, 0.45, 0.6]
    bases = {pot.batch for zone in planned.zones for pot in zone.layers[0].pots}
    assert len(bases) <= 2, "what all strips have alike comes from the same pot"


def test_tiny_batches_are_such_that_the_kit_can_measure_them() -> None:
    made = board(Ladder("share", "wash", rungs(0.3, 0.5), "water"))
    planned = plan(made, Workshop(), C, steady())
    for zone in planned.zones:
        (pot,) = zone.layers[1].pots
        assert pot.mix.volume.value >= LEAST_ML
        assert measure_out(needs_of(pot.mix), KIT).options
    assert made.board is not None
    assert SHORTEST_MM <= made.board.length_mm <= LONGEST_MM


def test_a_grid_steps_two_things_and_names_its_strips_by_row_and_column() -> None:
    made = board(WATER, Ladder("coats", "wash", rungs(1, 2)))
    assert made.board is not None
    assert [s.code for s in made.board.strips] == ["A1", "A2", "B1", "B2", "C1", "C2"]
    assert made.zones[5].layers[1].coats == 2
    assert made.zones[5].name == "C2: water 60 %, 2 coats"


@pytest.mark.parametrize(
    ("ladder", "seen"),
    [
        (Ladder("coats", "base", rungs(1, 3)), lambda z: [z.layers[0].coats]),
        (Ladder("kept", "wash", rungs(0.3, 1.0)), lambda z: [z.layers[1].kept]),
        (Ladder("sanding", "wash", rungs(0, 120)), lambda z: [s.grit for s in z.layers[1].sandings]),
        (
            Ladder("sealer", "seal", (Rung(slug=""), Rung(slug="clear-wax-plain"))),
            lambda z: [x.recipe for x in z.layers[2:]],
        ),
    ],
)
def test_each_thing_that_is_varied_is_another_on_each_strip(ladder: Ladder, seen: Any) -> None:
    made = board(ladder)
    first, second = (seen(z) for z in made.zones)
    assert first != second
    assert made.zones[0].name != made.zones[1].name


def test_a_tint_is_stepped_and_the_paints_beside_it_keep_their_ratio() -> None:
    white, cream, black = Tint("white", "#f4f1ea", 6), Tint("cream", "#ece3cc", 2), Tint("soot", "#2f2e2d", 1)
    base = replace(BASE, colours={}, tints={"paint": (white, cream, black)})
    job = replace(JOB, zones=(replace(JOB.zones[0], layers=(base, SEAL)),))
    made = board(Ladder("tint", "base", rungs(0.02, 0.1), "paint"), job=job)
    assert [z.name for z in made.zones] == ["A: soot 2 %", "B: soot 10 %"]
    for zone, share in zip(made.zones, (0.02, 0.1), strict=True):
        tints = zone.layers[0].tints["paint"]
        assert tints[2].parts / sum(t.parts for t in tints) == pytest.approx(share)
        assert tints[0].parts / tints[1].parts == pytest.approx(3)
    names = [o.name for o in ladders_for(Look(trial(job, 0, C, steady()).stack(job.zones[0])), 0)]
    assert "soot in it" in names
    with pytest.raises(InvalidValue, match="no tint"):
        board(Ladder("tint", "wash", rungs(0.1), "paint"))


def test_what_cannot_be_stepped_is_refused() -> None:
    ids = (f"x{n}" for n in count())
    with pytest.raises(InvalidValue, match="no layer"):
        stepped(JOB.zones[0].layers, Ladder("coats", "none", rungs(1)), Rung(1), C, ids)
    with pytest.raises(UnknownEntry):
        board(Ladder("share", "wash", rungs(0.3), "moonlight"))
    with pytest.raises(InvalidValue, match="share"):
        board(Ladder("share", "wash", rungs(1.2), "water"))
    with pytest.raises(InvalidValue, match="nothing to try"):
        plan_board(JOB, "", "other", (WATER,), KIT, C, ids)
    with pytest.raises(InvalidValue, match="strips"):
        board(Ladder("coats", "wash", rungs(*range(1, 9))), Ladder("kept", "wash", rungs(0.2, 0.4, 0.6, 0.8)))


# One pot through all strips -----------------------------------------------------------------------------------------


def test_one_pot_goes_down_the_ladder_in_whole_fillings() -> None:
    made = step_down("ABCD", (0.3, 0.45, 0.6, 0.75), 8.0, 20.0, KIT)
    assert made is not None
    held = wet = 0.0
    for step, share in zip(made.steps, (0.3, 0.45, 0.6, 0.75), strict=True):
        held, wet = held + step.paint_ml, wet + step.water_ml
        assert (step.water_ml / 1.25) == pytest.approx(round(step.water_ml / 1.25))
        assert wet / (held + wet) == pytest.approx(share, abs=WRONG)
        assert held + wet >= step.used_ml
        left = 1 - step.used_ml / (held + wet)
        held, wet = held * left, wet * left
    assert made.saved_ml == pytest.approx(sum(20 * (1 - w) for w in (0.3, 0.45, 0.6, 0.75)) - made.paint_ml, abs=0.1)


def test_no_pot_goes_up_a_ladder_and_none_that_saves_nothing_is_offered() -> None:
    assert step_down("AB", (0.6, 0.3), 8.0, 20.0, KIT) is None
    assert step_down("A", (0.6,), 8.0, 20.0, KIT) is None
    assert step_down("AB", (0.3, 0.6), 60.0, 5.0, KIT) is None
    assert step_down("AB", (0.3, 0.6), 8.0, 20.0, replace(KIT, measures=())) is None


# What a board teaches -----------------------------------------------------------------------------------------------


def look_of(job: Job) -> Any:
    return lambda i: Look(trial(job, i, C, steady()).stack(job.zones[i]))


def painted(made: Job, hides: float, wiping: float = 1.0, within: float = 1.0) -> Job:
    """The board with colours seen on it as if its layer hid so many times as strongly, and was wiped so much less."""
    assert made.board is not None
    strips = []
    for i, strip in enumerate(made.board.strips):
        look = look_of(made)(i)
        at = next(j for j, x in enumerate(made.zones[i].layers) if x.id == strip.layer)
        kept = look.films[at].kept
        hex_ = look.otherwise(at, hides, kept if kept >= 1 else min(1.0, kept * wiping))
        strips.append(replace(strip, seen=SeenColour(hex_, "typed", within)))
    return replace(made, board=replace(made.board, strips=tuple(strips)))


@pytest.mark.parametrize("hides", [0.6, 1.0, 1.5])
def test_a_board_teaches_how_strongly_its_layer_hides(hides: float) -> None:
    made = painted(board(WATER), hides)
    found = taught(made, look_of(made))
    assert found is not None
    assert found.layer == "wash"
    assert found.hides == pytest.approx(hides, rel=0.12)
    assert found.least <= found.hides <= found.most
    assert found.kept is None, "on wiped strips alone hiding and wiping cannot be told apart"
    assert all(e.after <= e.off + 0.3 for e in found.evidence)
    assert [e.code for e in found.evidence] == ["A", "B", "C"]


def test_an_unwiped_strip_beside_wiped_ones_tells_wiping_from_hiding() -> None:
    made = painted(board(Ladder("kept", "wash", rungs(0.4, 1.0))), 1.4, wiping=0.5)
    found = taught(made, look_of(made))
    assert found is not None
    assert found.hides == pytest.approx(1.4, rel=0.15)
    assert found.kept == pytest.approx(0.2, abs=0.05)


def test_what_was_seen_badly_moves_less_than_what_was_seen_well() -> None:
    good, bad = (taught(m, look_of(m)) for m in (painted(board(WATER), 1.6, within=w) for w in (1.0, 15.0)))
    assert good is not None
    assert bad is not None
    assert abs(bad.hides - 1) < abs(good.hides - 1)
    assert bad.most - bad.least > good.most - good.least


def test_a_colour_that_no_strength_explains_is_said_not_to_fit() -> None:
    made = board(WATER)
    assert made.board is not None
    red = tuple(replace(s, seen=SeenColour("#a02020", "typed", 2)) for s in made.board.strips)
    wrong = replace(made, board=replace(made.board, strips=red))
    found, good = taught(wrong, look_of(wrong)), taught(painted(made, 0.7), look_of(made))
    assert found is not None
    assert good is not None
    assert not found.fits
    assert good.fits


def test_words_alone_teach_nothing() -> None:
    made = board(WATER)
    assert made.board is not None
    strips = tuple(replace(s, verdict="too strong") for s in made.board.strips)
    said = replace(made, board=replace(made.board, strips=strips))
    assert taught(said, look_of(said)) is None
    assert taught(JOB, look_of(JOB)) is None


def test_what_was_learned_makes_the_next_picture_as_the_board_was() -> None:
    made = painted(board(WATER), 0.5)
    found = taught(made, look_of(made))
    assert found is not None
    zone = JOB.zones[0]
    told = replace(zone, layers=(zone.layers[0], replace(zone.layers[1], hides=found.hides), zone.layers[2]))
    before, after = (Look(trial(JOB, 0, C, steady()).stack(z)).column.top.hex for z in (zone, told))
    true = Look(trial(JOB, 0, C, steady()).stack(zone)).otherwise(1, 0.5, C.marks["wash-wiped"].kept)
    off = [float(delta_e(lab_of(reflectance(h)), lab_of(reflectance(true)))) for h in (before, after)]
    assert off[1] < 0.4 * off[0]


def _one_pot(made: Job) -> Stepped | None:
    return one_pot(made, lambda i: trial(made, i, C, steady()).stack(made.zones[i]), KIT)


def test_the_pot_of_a_board_holds_what_each_strip_takes_by_the_rates_of_the_piece() -> None:
    made = board(WATER)
    pot, about = _one_pot(made), made.board
    assert pot is not None
    assert about is not None
    assert [s.code for s in pot.steps] == ["A", "B", "C"]
    washes = {s.layer for s in about.strips}
    zones = tuple(replace(z, layers=tuple(replace(x, want=FromArea("area")) for x in z.layers)) for z in made.zones)
    worked = work(replace(made, zones=zones), Workshop(), C, steady())
    lies = [sum(c.need.film_ml for c in run.coats) for run in worked.runs if run.first.need.layer in washes]
    brush = C.tools[WASH.tool].holds_ml
    assert pot.steps[0].used_ml == pytest.approx(max(lies) + brush)


@pytest.mark.parametrize(
    "ladders",
    [(Ladder("coats", "wash", rungs(1, 2, 3)),),
     (Ladder("kept", "wash", rungs(0.2, 0.4)),),
     (WATER, Ladder("kept", "wash", rungs(0.4, 1.0)))],
)  # fmt: skip
def test_only_water_alone_is_stepped_down_in_one_pot(ladders: tuple[Ladder, ...]) -> None:
    assert _one_pot(board(*ladders)) is None


# Offered, said once ---------------------------------------------------------------------------------------------------


def test_a_ladder_of_sanding_is_sanded_as_the_steps_of_sanding_back_say() -> None:
    ids = (f"x{n}" for n in count())
    for way in SANDED_BACK:
        ladder = Ladder("sanding", "wash", rungs(way.grit))
        assert stepped((BASE, WASH), ladder, ladder.rungs[0], C, ids)[1].sandings == way.sandings


def test_a_ladder_of_sealers_is_of_what_is_offered_as_one() -> None:
    ladder = ladders_for(Look(trial(JOB, 0, C, steady()).stack(JOB.zones[0])), 2)[0].ladder
    assert [r.slug for r in ladder.rungs] == ["", *(C.offer(need) for need in SEALERS[:5])]


def test_a_strip_of_a_striped_layer_is_painted_all_over() -> None:
    """The stripes belong to the piece: on a strip one colour is judged, and the board has no face of that name."""
    stripes = Layout("stripes", (Stripe(50, 50),), surfaces=("doors",))
    striped = replace(BASE, id="stripes", layout=stripes, touched=0.4)
    job = replace(JOB, zones=(replace(JOB.zones[0], layers=(BASE, WASH, striped)),))
    made = board(WATER, job=job)
    assert [(z.layers[2].layout, z.layers[2].touched) for z in made.zones] == [(None, 1.0)] * 3
    assert work(made, Workshop(), C, steady()).problems == ()
