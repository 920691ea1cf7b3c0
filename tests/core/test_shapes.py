"""Areas against cases worked by hand and against other ways to the same number."""

from math import pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.measure import shapes

SIZE = st.floats(1, 5000)


@pytest.mark.parametrize(
    ("area", "m2"),
    [
        (shapes.rectangle(1000, 500) + shapes.board_edges(1000, 500, 20), 0.56),
        (shapes.oval(1200, 800), 0.7540),
        (shapes.frustum_wall(50, 30, 420), 0.05279),
        (shapes.disc(1000), 0.785398),
        (shapes.ring(1000, 500), 0.589049),
        (shapes.cylinder_wall(100, 1000), 0.314159),
        (shapes.sphere(100), 0.0314159),
    ],
)
def test_areas_worked_by_hand(area: float, m2: float) -> None:
    assert area == pytest.approx(m2, rel=1e-4)


@given(SIZE, SIZE)
def test_a_straight_frustum_is_a_cylinder(diameter: float, height: float) -> None:
    assert shapes.frustum_wall(diameter, diameter, height) == pytest.approx(shapes.cylinder_wall(diameter, height))


@given(SIZE)
def test_a_round_oval_is_a_disc(diameter: float) -> None:
    assert shapes.oval(diameter, diameter) == pytest.approx(shapes.disc(diameter))


def test_a_finely_turned_ball_is_a_sphere() -> None:
    n, r = 400, 50.0
    heights = [-r + 2 * r * i / n for i in range(n + 1)]
    stations = [(h, 2 * max(r * r - h * h, 0) ** 0.5) for h in heights]
    assert shapes.turned_profile(stations) == pytest.approx(shapes.sphere(2 * r), rel=1e-3)


@given(st.lists(st.tuples(st.floats(1, 200), st.floats(1, 200)), min_size=2, max_size=8), st.floats(0.1, 10))
def test_scaling_sizes_by_k_scales_area_by_k_squared(steps: list[tuple[float, float]], k: float) -> None:
    height, stations = 0.0, []
    for rise, diameter in steps:
        height += rise
        stations.append((height, diameter))
    scaled = [(h * k, d * k) for h, d in stations]
    assert shapes.turned_profile(scaled) == pytest.approx(shapes.turned_profile(stations) * k * k)


def test_a_reed_is_half_a_cylinder_wall() -> None:
    assert shapes.cylinder_wall(10, 1000) / 2 / shapes.rectangle(10, 1000) == pytest.approx(pi / 2)
