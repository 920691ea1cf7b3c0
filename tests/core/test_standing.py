"""What speaks against a job is counted and named once, on every side of it and on paper."""

from dataclasses import replace

from lumso.core.checks.findings import Finding
from lumso.core.checks.standing import Standing, standing_of
from lumso.demo import demo_jobs
from tests.conftest import planned


def finding(grade: str, rule: str, accepted: str | None = None) -> Finding:
    return Finding(grade, "/zones/0", f"{rule} says so.", "", "", rule, accepted=accepted)  # type: ignore[arg-type]


def test_what_can_hurt_comes_before_what_will_fail_and_what_two_zones_have_is_one() -> None:
    found = [("a", "Body", finding("will fail", "wet")), ("a", "Body", finding("can hurt", "lead")),
             ("b", "Doors", finding("can hurt", "lead")), ("b", "Doors", finding("will fail", "wax"))]  # fmt: skip
    said = "1 can hurt somebody, 2 will fail. Body: lead says so."
    assert standing_of(found) == Standing(1, 2, "a", "lead", said)


def test_what_is_accepted_or_merely_risky_does_not_count() -> None:
    found = [("a", "Body", finding("will fail", "wet", "meant so")), ("a", "Body", finding("risky", "thick")),
             ("a", "Body", finding("good to know", "slow"))]  # fmt: skip
    assert standing_of(found) == Standing()


def test_of_the_loft_only_the_wardrobe_has_something_against_it() -> None:
    against = {job.name: planned(job).standing for job in demo_jobs()}
    assert {name for name, one in against.items() if one.says} == {"Costume wardrobe"}
    assert "lead" in against["Costume wardrobe"].says


def test_it_goes_once_what_it_is_about_is_mended() -> None:
    wardrobe = next(j for j in demo_jobs() if j.name == "Costume wardrobe")
    lead = replace(wardrobe.use.lead, answer="none found", how="laboratory", on="2026-11-20")
    mended = replace(wardrobe, use=replace(wardrobe.use, lead=lead))
    assert planned(mended).standing == Standing()
