"""A new job from a few answers: only sizes are presumed, and they say so wherever they are counted with."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.changes.change import InsertLayer
from lumso.core.edits.beginning import Beginning, begun, sizes_said
from lumso.core.edits.edit import EditStack, PutFinish, TakeUsual, TypeSize, edited
from lumso.core.errors import AmbiguousValue, InvalidValue, UnknownEntry
from lumso.core.job.areas import USUAL_OFF, measure
from lumso.core.job.job import Answered, Job
from lumso.core.layers.conditions import Room
from lumso.core.measure.lengths import Length, parse_length, read_length, read_sizes, usual_length
from lumso.core.piece.kinds import kind_of
from lumso.core.plan.plan import Plan, plan
from lumso.core.workshop.workshop import Workshop
from lumso.formats import jobfile

C = shipped()


def start(form: str, **more: object) -> Job:
    return begun(Beginning("seed", form, **more), C, Room()).job  # type: ignore[arg-type]


def planned(job: Job) -> Plan:
    return plan(job, Workshop(), C, Room())


@pytest.mark.parametrize("slug", sorted(C.forms))
def test_every_form_is_drawn_from_its_usual_sizes_and_is_a_job_file(slug: str) -> None:
    job = start(slug)
    assert jobfile.from_json(jobfile.to_json(job)) == job
    measured = measure(job)
    if slug == "parts":
        return
    assert measured.problems == ()
    assert measured.drawing
    assert 0.1 < measured.rough < 0.6
    assert job.name == C.forms[slug].name


@pytest.mark.parametrize("slug", sorted(C.forms))
def test_a_form_has_the_zones_its_own_counts_give_it(slug: str) -> None:
    job, form = start(slug), C.forms[slug]
    kind = kind_of(form.kind)
    named = {s for zone in job.zones for s in zone.surfaces}
    usually = kind.surfaces({**kind.usual(), **form.sizes, **form.counts})
    assert named == {s.slug for s in usually if not s.usually_bare}


def test_a_candlestick_has_no_arms_and_is_not_asked_for_them() -> None:
    job = start("candlestick")
    assert [z.name for z in job.zones] == ["Post", "Base"]
    assert measure(job).presumed == ("Height", "Post, diameter", "Base, diameter", "Base, height")


def test_nothing_but_sizes_is_presumed() -> None:
    made = planned(start("bedside-table"))
    assert {z.ground for z in start("bedside-table").zones} == {"not-known"}
    assert all(zone.layers == () for zone in made.zones)
    assert made.totals.materials == ()
    assert "may hold lead" in made.next.says
    assert planned(start("bedside-table", ground="raw-pine")).next.says == "Choose a mix for top"


def test_a_typed_size_is_no_longer_usual_and_the_area_is_the_surer_for_it() -> None:
    usual = start("board")
    typed = start("board", sizes=(parse_length("1 m"), parse_length("500")))
    whole = start("board", sizes=(parse_length("1 m"), parse_length("500"), parse_length("20")))
    roughs = [measure(job).rough for job in (usual, typed, whole)]
    assert roughs[0] > roughs[1] > roughs[2] == 0
    assert measure(typed).presumed == ("Thickness",)
    assert planned(whole).zones[0].area == planned(replace(whole, name="x")).zones[0].area


def test_how_far_a_usual_size_moves_the_area_by_hand() -> None:
    """Thickness 20 → 25 mm on 1 × 0.5 m: top, underside and edges are 1.06 m², the edges grow by 0.015 m²."""
    job = start("board", sizes=(parse_length("1 m"), parse_length("500")))
    assert USUAL_OFF == 0.25
    assert measure(job).rough == pytest.approx(0.015 / 1.06)


def test_an_unanswered_lead_question_speaks_before_any_abrading_and_an_answer_closes_it() -> None:
    def cautions(lead: Answered, ground: str = "old-gloss") -> set[str]:
        job = start("bedside-table", ground=ground, lead=lead, finish="chippy-milk-paint")
        return {c.rule for c in planned(job).cautions}

    assert "lead-untested" in cautions(Answered())
    assert "lead-untested" in cautions(Answered("test planned"))
    assert "lead-untested" in cautions(Answered(), "")
    assert "lead-untested" not in cautions(Answered("none found"))
    assert "lead-untested" not in cautions(Answered(), "raw-pine")


@pytest.mark.parametrize("finish", sorted(C.finishes))
def test_a_finish_put_on_from_the_beginning_is_the_finish_put_on_later(finish: str) -> None:
    once = start("side-table", ground="raw-pine", finish=finish)
    assert {z.finish for z in once.zones} == {finish}
    plain = start("side-table", ground="raw-pine")
    later = edited(plain, PutFinish("finish", "x", plain.zones[0].id, finish), C, Room()).job
    assert [x.recipe for x in once.zones[0].layers] == [x.recipe for x in later.zones[0].layers]
    assert once.zones[0].prep == later.zones[0].prep
    assert len({layer.id for z in once.zones for layer in z.layers}) == sum(len(z.layers) for z in once.zones)


def test_one_mix_and_nothing_else() -> None:
    job = start("board", ground="raw-pine", recipe="whitewash-dry-wiped")
    assert [x.recipe for x in job.zones[0].layers] == ["whitewash-dry-wiped"]
    assert planned(job).zones[0].layers[0].pots


def test_a_job_is_named_by_what_it_is_until_somebody_names_it() -> None:
    job = start("board", ground="raw-pine")
    assert job.name == "Board"
    washed = edited(job, PutFinish("finish", "a", job.zones[0].id, "rubbed-wash"), C, Room()).job
    name = C.finishes["rubbed-wash"].name
    assert washed.name == f"Board, {name[:1].lower()}{name[1:]}"
    mine = replace(washed, name="For Juna")
    change = EditStack("stack", "b", job.zones[0].id, (InsertLayer("insert", "", "paint-plain"),))
    assert edited(mine, change, C, Room()).job.name == "For Juna"


def test_usual_sizes_fill_only_what_is_missing() -> None:
    job = start("candlestick")
    assert job.piece
    bare = replace(job, piece=replace(job.piece, sizes={"height": parse_length("31 cm")}))
    filled = edited(bare, TakeUsual("usual sizes", "x"), C, Room()).job.piece
    assert filled
    assert filled.sizes["height"] == Length(310.0, "31 cm")
    assert filled.sizes["base"] == Length(110.0, "110 mm", "usual")
    assert set(filled.sizes) == {s.slug for s in kind_of("turned-stand").sizes}
    american = edited(bare, TakeUsual("usual sizes", "x", "in"), C, Room()).job.piece
    assert american
    assert american.sizes["base"].typed == "4 1/4 in"


def test_a_size_typed_while_nobody_could_read_it_is_read_later_or_refused_with_its_words() -> None:
    job = start("candlestick")
    for typed, bare, mm in (("31 cm", "mm", 310), ("12", "in", 304.8)):
        read = edited(job, TypeSize("size", "x", "height", typed, bare), C, Room()).job.piece  # type: ignore[arg-type]
        assert read
        assert read.sizes["height"].mm == pytest.approx(mm)
        assert read.sizes["height"].source == "typed"
    for size, typed in (("height", "tall"), ("arms", "5 cm"), ("height", "3")):
        with pytest.raises(InvalidValue):
            edited(job, TypeSize("size", "x", size, typed), C, Room())


@given(st.floats(1, 5000), st.sampled_from(["mm", "in"]))
def test_a_usual_size_reads_as_what_it_says_and_is_near(mm: float, bare: str) -> None:
    usual = usual_length(round(mm), bare)  # type: ignore[arg-type]
    assert parse_length(usual.typed).mm == pytest.approx(usual.mm)
    assert abs(usual.mm - round(mm)) <= max(25.4 / 8, round(mm) * 0.6 if mm < 3 else 0) + 1e-9


def test_what_is_not_there_is_refused_with_what_is() -> None:
    with pytest.raises(UnknownEntry, match="candlestick"):
        start("spaceship")
    with pytest.raises(UnknownEntry, match="raw-pine"):
        start("board", ground="moon dust")


@pytest.mark.parametrize(
    ("typed", "bare", "mm"),
    [
        ("1200 x 400 x 18", "mm", (1200, 400, 18)),
        ("1200×400", "mm", (1200, 400)),
        ("120 x 40 x 2 cm", "mm", (1200, 400, 20)),
        ("1.2 m x 400 x 18", "mm", (1200, 400, 18)),
        ("48 by 16 by 3/4", "in", (1219.2, 406.4, 19.05)),
        ('48" x 16" x 3/4"', "mm", (1219.2, 406.4, 19.05)),
        ("1,2 m; 0,4 m", "mm", (1200, 400)),
        ("4' 2\" x 16", "in", (1270, 406.4)),
    ],
)
def test_sizes_as_people_say_them(typed: str, bare: str, mm: tuple[float, ...]) -> None:
    assert tuple(one.mm for one in read_sizes(typed, bare)) == pytest.approx(mm)  # type: ignore[arg-type]


@given(st.lists(st.integers(1, 4000), min_size=1, max_size=6), st.sampled_from([" x ", "×", " by ", "; ", "*"]))
def test_sizes_read_back_whatever_parts_them(sizes: list[int], between: str) -> None:
    assert [one.mm for one in read_sizes(between.join(map(str, sizes)))] == sizes


def test_a_bare_number_has_its_unit_from_then_on() -> None:
    assert read_length("30", "in") == Length(762.0, "30 in")
    assert read_length("29 1/2", "in").typed == "29 1/2 in"
    assert read_length("750") == Length(750.0, "750 mm")
    assert read_length("75 cm", "in") == Length(750.0, "75 cm")
    assert read_length("0,75", "in").mm == pytest.approx(19.05)


def test_an_unusual_size_without_a_unit_is_asked_about() -> None:
    with pytest.raises(AmbiguousValue) as asked:
        read_length("750", "in", (200, 2500))
    assert asked.value.readings == ("750 mm",)
    assert read_length("750 in", "in", (200, 2500)).mm == 19050  # said with its unit, it is refused where it is used
    assert read_length("750", "mm", (200, 2500)).mm == 750
    with pytest.raises(AmbiguousValue) as whole:
        sizes_said("bedside-table", "45 x 60 x 40", "mm", C)
    assert whole.value.readings == ("45 x 60 x 40 cm",)  # 40 in is deeper than any
    assert whole.value.field == "sizes"


def test_sizes_a_piece_cannot_have_are_refused_at_their_field() -> None:
    for typed in ("9000 mm", "1 m x 1 m x 20 mm x 5 mm", "wide"):
        with pytest.raises(InvalidValue) as refused:
            sizes_said("board", typed, "mm", C)
        assert refused.value.field == "sizes"
        assert refused.value.allowed
