"""Learning from the log, on painters simulated here with nothing of what learns from them."""

import math
import random

import pytest

from lumso.core.learn.evidence import Ratio, lessons
from lumso.core.learn.margin import Risk, amount_for, margin_for
from lumso.core.learn.rates import Likely, clipped, doubtful, interval, learned_rate, next_job
from lumso.core.learn.waits import Sighting, learned_pace, learned_wait
from tests.counts import count


def test_three_jobs_at_one_and_three_tenths() -> None:
    """exp((3·ln 1.3/0.04) / (3/0.04 + 1/0.0625)) = 1.241."""
    assert learned_rate("wash|rubbed", [1.3, 1.3, 1.3]).factor == pytest.approx(1.241, abs=5e-4)
    assert learned_rate("wash|rubbed", [1.3]).factor == pytest.approx(math.exp(math.log(1.3) * 25 / 41), abs=1e-6)


def test_what_is_beyond_belief_asks_and_counts_clipped() -> None:
    assert [doubtful(r) for r in (0.44, 0.45, 1.0, 2.2, 2.3)] == [True, False, False, False, True]
    assert [clipped(r) for r in (0.1, 1.3, 9)] == [0.45, 1.3, 2.2]


@pytest.mark.parametrize("factor", [0.7, 0.85, 1.0, 1.2, 1.5])
def test_a_fixed_factor_is_found_within_a_twentieth_after_six_jobs(factor: float) -> None:
    assert learned_rate("a", [factor] * 6).factor == pytest.approx(factor, rel=0.05)
    rng = random.Random(f"fixed {factor}")
    found = [learned_rate("a", [factor * math.exp(rng.gauss(0, 0.12)) for _ in range(6)]).factor for _ in range(400)]
    assert sorted(found)[200] == pytest.approx(factor, rel=0.05)


def test_the_range_narrows_as_the_log_grows() -> None:
    rng = random.Random(3)
    jobs = [1.2 * math.exp(rng.gauss(0, 0.15)) for _ in range(24)]
    offs = [learned_rate("a", jobs[:n]).off for n in (1, 3, 6, 12, 24)]
    assert offs == sorted(offs, reverse=True)
    assert offs[-1] < 0.05 < offs[0]


@pytest.mark.parametrize("spread", [0.12, 0.2, 0.28, 0.35])
def test_the_spread_of_jobs_is_estimated(spread: float) -> None:
    rng = random.Random(f"spread {spread}")
    found = []
    for _ in range(200):
        mine = rng.gauss(0, 0.25)
        found.append(learned_rate("a", [math.exp(mine + rng.gauss(0, spread)) for _ in range(20)]).spread)
    assert sorted(found)[100] == pytest.approx(spread, rel=0.12)


@pytest.mark.parametrize(("spread", "jobs"), [(0.2, 0), *((s, n) for s in (0.12, 0.2, 0.28, 0.35) for n in (4, 8, 16))])
def test_nine_of_ten_next_jobs_lie_in_the_interval(spread: float, jobs: int) -> None:
    rng = random.Random(f"next {spread} {jobs}")
    inside, painters = 0, count("painters")
    for _ in range(painters):
        mine = rng.gauss(0, 0.25)
        low, high = interval(next_job([math.exp(mine + rng.gauss(0, spread)) for _ in range(jobs)]))
        inside += low <= math.exp(mine + rng.gauss(0, spread)) <= high
    assert 0.85 <= inside / painters <= 0.95


@pytest.mark.parametrize("one_in", [5, 10, 20, 50])
@pytest.mark.parametrize("jobs", [0, 6])
def test_it_runs_short_as_often_as_was_chosen(one_in: int, jobs: int) -> None:
    """Ten thousand jobs of three zones each: the rate is off alike in all of them, the areas each by itself."""
    rng = random.Random(f"short {one_in} {jobs}")
    films, lost = (240.0, 90.0, 30.0), (9.0, 8.5, 8.0)
    short = total = 0
    for _ in range(count("jobs that run short")):
        mine = rng.gauss(0, 0.25)
        log = [math.exp(mine + rng.gauss(0, 0.2)) for _ in range(jobs)]
        risk = Risk(one_in, next_job(log), 0.03)
        mixed = [amount_for(f, x, risk) for f, x in zip(films, lost, strict=True)]
        for _ in range(25):
            rate = math.exp(mine + rng.gauss(0, 0.2))
            for film, keeps, ml in zip(films, lost, mixed, strict=True):
                needs = film * rate * math.exp(rng.gauss(0, 0.03)) + keeps * (1 + rng.gauss(0, 0.3))
                short += needs > ml
                total += 1
    assert short / total == pytest.approx(1 / one_in, rel=0.25)


def test_a_smaller_risk_and_a_smaller_log_take_more() -> None:
    none, some = next_job([]), next_job([1.0] * 8)
    asked = [margin_for(200, 10, Risk(n, none, 0.03)) for n in (5, 10, 20, 50)]
    assert asked == sorted(asked)
    assert margin_for(200, 10, Risk(20, some, 0.03)) < margin_for(200, 10, Risk(20, none, 0.03))
    assert margin_for(200, 10, Risk(20, none, 0.12)) > margin_for(200, 10, Risk(20, none, 0.03))
    assert margin_for(0, 0, Risk(20, none, 0.03)) == 0
    assert amount_for(0, 8, Risk(20, none, 0.03)) == 8
    # By hand: one in ten of a normal of ln with spread 0.32 is 1.2816·0.32 above its median: × 1.507.
    by_hand = amount_for(1000, 0, Risk(10, (Likely(1.0, 0.0, 0.32),), 0.0))
    assert by_hand == pytest.approx(1507, rel=1e-3)


def seen(factor: float, rng: random.Random, gap: float = 0.3) -> list[Sighting]:
    """What a painter notes of a film that takes `factor` times as long: looks that come when they come."""
    truth = 120 * factor * math.exp(rng.gauss(0, 0.15))
    found = []
    at = 120 * rng.uniform(0.4, 0.9)
    while at < truth:
        found.append(Sighting("wash", "job", 0, 120, at, dry=False))
        at *= 1 + rng.uniform(0.05, gap)
    return [*found, Sighting("wash", "job", 0, 120, at, dry=True)]


def test_found_dry_says_by_then_and_not_yet_says_later() -> None:
    dry = [Sighting("wash", "job", 0, 120, 300, dry=True)] * 12
    assert 0.75 < learned_wait("wash", dry).factor < 1.1  # long dry is no reason to wait longer
    soon = [Sighting("wash", "job", 0, 120, 60, dry=True)] * 6
    assert learned_wait("wash", soon).factor < 0.65
    late = [Sighting("wash", "job", 0, 120, 180, dry=False)] * 6
    assert learned_wait("wash", late).factor > 1.5
    early = [Sighting("wash", "job", 0, 120, 20, dry=False)] * 12
    assert 0.9 < learned_wait("wash", early).factor < 1.3


@pytest.mark.parametrize("factor", [0.7, 1.0, 1.5])
def test_drying_is_learnt_from_looks_that_come_when_they_come(factor: float) -> None:
    rng = random.Random(f"dries {factor}")
    found = [learned_wait("wash", [s for _ in range(12) for s in seen(factor, rng)]).factor for _ in range(60)]
    assert sorted(found)[30] == pytest.approx(factor, rel=0.1)
    assert learned_wait("wash", []).factor == pytest.approx(1)


def test_the_gap_between_two_looks_is_not_learnt() -> None:
    """A painter who looks only the next morning learns nothing of the hours between."""
    rng = random.Random("gap")
    found = [
        learned_wait("wash", [s for _ in range(12) for s in seen(1.0, rng, gap=8.0)]).factor for _ in range(60)
    ]  # fmt: skip
    assert sorted(found)[30] == pytest.approx(1.0, rel=0.15)


def test_who_takes_half_as_long_again_is_two_thirds_as_fast() -> None:
    assert learned_pace("brushed", [1.5] * 8).factor == pytest.approx(1 / 1.5, rel=0.05)


def test_pots_of_one_job_count_as_one_and_what_is_off_is_said_so() -> None:
    ratios = [
        Ratio("wash|rubbed", f"p{i}", "a" if i < 3 else "b", i, r) for i, r in enumerate((1.2, 1.3, 1.4, 1.1, 5.0))
    ]
    (lesson,) = lessons(ratios, (), ())
    assert lesson.learned is not None
    assert lesson.learned.jobs == 2
    assert [e.counts for e in lesson.evidence] == [True, True, True, True, False]
    assert lesson.evidence[4].doubt.startswith("Really?")
    one_each = learned_rate("wash|rubbed", [(1.2 * 1.3 * 1.4) ** (1 / 3), 1.1])
    assert lesson.learned.factor == pytest.approx(one_each.factor)
    (confirmed,) = lessons(ratios, ("p4",), ("wash|rubbed",))
    assert confirmed.learned is not None
    assert confirmed.evidence[4].counts
    assert not confirmed.on
    assert confirmed.learned.factor == pytest.approx(
        learned_rate("wash|rubbed", [(1.2 * 1.3 * 1.4) ** (1 / 3), (1.1 * 2.2) ** 0.5]).factor
    )
    (nothing,) = lessons([Ratio("glaze|dragged", "p", "a", 0, 9.0)], (), ())
    assert nothing.learned is None
