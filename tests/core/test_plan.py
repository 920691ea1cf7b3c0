"""The plan of a job: the worked board from end to end, limits, and what stands in the way."""

from dataclasses import replace

import pytest

from lumso.core.book.recipes import VolumeShare
from lumso.core.job.job import FromTotal, FromVessel, Job
from lumso.core.measure.lengths import parse_length
from tests.conftest import only_mix, planned, with_layer


def with_size(job: Job, size: str, typed: str) -> Job:
    assert job.piece
    return replace(job, piece=replace(job.piece, sizes={**job.piece.sizes, size: parse_length(typed)}))


def water(share: float) -> dict[str, object]:
    return {"amounts": {"water": VolumeShare("volume-share", share)}}


def test_the_programme_rack(rack: Job) -> None:
    made = planned(rack)
    area = made.zones[0].area
    assert area is not None
    assert area.value == pytest.approx(0.56)
    mix = only_mix(made)
    assert mix.volume.value == pytest.approx(46.13, abs=0.005)
    assert [round(p.poured.value, 1) for p in mix.parts] == [11.5, 34.6]
    assert mix.parts[0].mass.value == pytest.approx(11.53 * 1.35, abs=0.01)
    assert made.next.says == "Mix 46 ml of paint wash on raw wood, Footlight green"


def test_every_number_carries_the_chain_that_made_it(rack: Job) -> None:
    names = [step.name for step in only_mix(planned(rack)).parts[1].mass.steps]
    assert names == [
        "Top",
        "Edges",
        "Area",
        "Wet rate",
        "On the surface",
        "Clings to the pot",
        "Stays in the tool",
        "Margin",
        "Water",
        "Water, weighed",
    ]


def test_left_out_surfaces_are_named_with_their_area_and_reason(rack: Job) -> None:
    (left,) = [s for s in planned(rack).surfaces if not s.zone]
    assert (left.name, left.area_m2, left.why) == ("Underside", 0.5, "not seen")


@pytest.mark.parametrize(
    ("ground", "technique", "share", "crossed"),
    [
        ("raw-pine", "wash-rubbed", 0.80, False),
        ("raw-pine", "wash-rubbed", 0.81, True),
        ("painted-unsealed", "wash-wiped", 0.60, False),
        ("painted-unsealed", "wash-wiped", 0.61, True),
    ],
)
def test_water_has_limits_by_ground_and_method(
    rack: Job, ground: str, technique: str, share: float, crossed: bool
) -> None:
    job = with_layer(rack, technique=technique, **water(share))
    job = replace(job, zones=(replace(job.zones[0], ground=ground),))
    layer = planned(job).zones[0].layers[0]
    assert [limit.crossed for limit in layer.limits] == [crossed]
    told = [f for f in layer.findings if f.at.endswith("/amounts/water")]
    assert len(told) == crossed
    assert all(f.grade == "risky" and "water" in f.reason for f in told)


def test_a_wash_meant_for_raw_wood_says_so_on_paint(rack: Job) -> None:
    job = replace(rack, zones=(replace(rack.zones[0], ground="painted-sealed"),))
    says = [f.says for f in planned(job).zones[0].layers[0].findings]
    assert any("meant for raw wood" in s for s in says)
    assert planned(rack).zones[0].layers[0].findings == ()


@pytest.mark.parametrize("typed", ["400 m", "5 mm", "7 yd"])
def test_absurd_sizes_become_a_problem_at_the_size_with_what_is_allowed(rack: Job, typed: str) -> None:
    made = planned(with_size(rack, "length", typed))
    (problem,) = made.problems
    assert (problem.at, problem.allowed) == ("/piece/sizes/length", "10 mm to 6 m")
    assert typed in problem.says
    assert made.zones[0].layers[0].pots == ()
    assert made.next.at == problem.at


def test_a_new_job_says_which_size_is_missing(rack: Job) -> None:
    assert rack.piece
    made = planned(replace(rack, piece=replace(rack.piece, sizes={})))
    assert [p.at for p in made.problems] == [f"/piece/sizes/{s}" for s in ("length", "width", "thickness")]


@pytest.mark.parametrize(
    ("field", "slug", "at"),
    [
        ("recipe", "moonlight", "/zones/0/layers/0/recipe"),
        ("technique", "thrown", "/zones/0/layers/0/technique"),
        ("tool", "broom", "/zones/0/layers/0/tool"),
    ],
)
def test_unknown_names_become_problems_that_list_the_known_ones(rack: Job, field: str, slug: str, at: str) -> None:
    (problem,) = planned(with_layer(rack, **{field: slug})).problems
    assert problem.at == at
    assert slug in problem.says
    assert len(problem.allowed) > 10


def test_a_surface_the_piece_does_not_have_is_a_problem(rack: Job) -> None:
    job = replace(rack, zones=(replace(rack.zones[0], surfaces=("top", "lid")),))
    assert planned(job).problems[0].at == "/zones/0/surfaces"


def test_a_quick_pot_needs_no_piece(rack: Job) -> None:
    pot = with_layer(replace(rack, piece=None), want=FromTotal("total", 200))
    mix = only_mix(planned(pot))
    assert [p.poured.value for p in mix.parts] == pytest.approx([50, 150])


def test_an_amount_by_area_without_a_piece_is_a_problem(rack: Job) -> None:
    assert planned(replace(rack, piece=None)).problems[0].at == "/zones/0/layers/0/want"


def test_a_vessel_is_filled_with_room_to_stir(rack: Job) -> None:
    pot = with_layer(replace(rack, piece=None), want=FromVessel("vessel", 400))
    assert only_mix(planned(pot)).volume.value == pytest.approx(340)


@pytest.mark.parametrize("measures", ["us", "metric", "australian", "imperial"])
def test_the_jar_is_true_to_volume_and_graduated_in_the_users_measures(rack: Job, measures: str) -> None:
    mix = only_mix(planned(rack, measures))
    assert mix.jar.strata[-1].top_ml == pytest.approx(mix.volume.value)
    labelled = [g for g in mix.jar.graduations if g.label]
    assert 2 <= len(labelled) <= 8
    assert all(0 < g.ml <= mix.jar.capacity_ml + 1e-6 for g in mix.jar.graduations)
    unit = {"us": "tbsp", "metric": "ml", "australian": "ml", "imperial": "tbsp"}[measures]
    assert all(g.label.endswith(unit) for g in labelled)
