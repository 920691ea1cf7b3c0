"""Every state the interface can be in that somebody would notice: each place, dialog, empty, error and refused state.

The walk in `test_walk.py` looks at each of them; it fails for a route or a dialog of the interface that has no state
here. What has something new to show gets a line.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass

from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import choose
from tests.browser.lumso import Running


@dataclass(frozen=True)
class State:
    """Where it is, what its title says, what shows that it is there, and how one comes to it from there.

    `address` may name {job} (the one called `of`), {zone}, {layer}, {pot} and {code}. `press` is pressed one after the
    other once all was looked at, and the focus must have gone somewhere each time. `covers` names the source files
    whose dialog it opens, `route` where it is in the end when that is another address.
    """

    group: str
    address: str
    title: str
    there: str
    of: str = "Ticket counter"
    make: Callable[[Page, Running], None] | None = None
    press: tuple[str, ...] = ()
    press_at: tuple[int, ...] = (1280, 390)
    covers: tuple[str, ...] = ()
    route: str = ""


def button(page: Page, name: str) -> None:
    """Press a button whose name begins so."""
    page.get_by_role("button", name=re.compile(f"^{name}")).first.click()


def opens(name: str, kind: str = "dialog") -> Callable[[Page, Running], None]:
    """Pressing a button opens a dialog, or what else is said."""

    def make(page: Page, lumso: Running) -> None:
        button(page, name)
        expect(page.get_by_role(kind).last).to_be_visible()  # type: ignore[arg-type]

    return make


def shows(*names: str) -> Callable[[Page, Running], None]:
    """Buttons pressed, one after the other."""

    def make(page: Page, lumso: Running) -> None:
        for name in names:
            button(page, name)

    return make


def fills(label: str, text: str, says: str) -> Callable[[Page, Running], None]:
    """Something in a field that is refused in words."""

    def make(page: Page, lumso: Running) -> None:
        page.get_by_label(label, exact=True).first.fill(text)
        expect(page.get_by_role("alert").filter(has_text=says).first).to_be_visible()

    return make


def _keys(page: Page, lumso: Running) -> None:
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()


CHANGES = "**/api/jobs/*/changes*"
"""Where what is done to a job is sent."""


def _changed_elsewhere(page: Page, lumso: Running) -> None:
    page.route(CHANGES, lambda route: route.abort())
    page.get_by_label("Name of the job").fill("Hat stand, mine")
    other = page.context.new_page()
    other.goto(page.url)
    other.get_by_label("Name of the job").fill("Hat stand, theirs")
    expect(other.get_by_text("Saved", exact=True)).to_be_visible()
    other.close()
    page.unroute(CHANGES)
    expect(page.get_by_role("dialog", name="This job was changed elsewhere")).to_be_visible()


def _refused_edit(page: Page, lumso: Running) -> None:
    def refuse(route: Route) -> None:
        body = '{"type":"about:blank","title":"Unfit","status":422,"detail":"No such mix.","faults":[]}'
        route.fulfill(status=422, body=body, content_type="application/json")

    page.route(CHANGES, refuse)
    choose(page, "Another layer, on top", "milk-paint")
    expect(page.get_by_role("alert").filter(has_text="No such mix.")).to_be_visible()
    page.unroute(CHANGES)


def _menu(page: Page, lumso: Running) -> None:
    button(page, "Copy stack to")
    expect(page.get_by_role("menu")).to_be_visible()


def _restoring(page: Page, lumso: Running) -> None:
    button(page, "Back up now")
    page.get_by_role("button", name=re.compile("^Go back to the backup")).first.click()
    expect(page.get_by_role("alertdialog")).to_be_visible()


def _word(page: Page, lumso: Running) -> None:
    page.locator("[popovertarget]").first.click()
    expect(page.locator("[popover]:popover-open")).to_be_visible()


def _spoilt(page: Page, lumso: Running) -> None:
    lumso.order("spoil", job=lumso.job("Hat stand"))
    page.reload()


def _change(page: Page, lumso: Running) -> None:
    button(page, "Copy as my own")
    expect(page.get_by_label("Name", exact=True)).to_have_value("My salt wash")


def _away(page: Page, lumso: Running) -> None:
    page.get_by_role("button", name=re.compile("^Coats: more")).wait_for()
    lumso.stop()
    button(page, "Coats: more")
    expect(page.get_by_text("On this device only", exact=True)).to_be_visible()


def _rotten(page: Page, lumso: Running) -> None:
    lumso.order("keep", kind="kit", slug="old-drawer", document='{"slug": "old-drawer"}')
    page.reload()
    expect(page.get_by_role("alert").filter(has_text="The kit old-drawer cannot be read")).to_be_visible()


def _rotten_backup(page: Page, lumso: Running) -> None:
    lumso.order("rot")
    page.reload()
    expect(page.get_by_text("It cannot be read, and is kept as it is")).to_be_visible()


def _no_copies(page: Page, lumso: Running) -> None:
    lumso.order("rot", day="20200101")
    page.reload()
    expect(page.get_by_role("alert").filter(has_text="No backup could be made for")).to_be_visible()


def _board(page: Page, lumso: Running) -> None:
    button(page, "Make a board of")
    expect(page.get_by_role("region", name="Strips")).to_be_visible()


def _rehearsed(page: Page, lumso: Running) -> None:
    """A rehearsal in a hurry, to its end."""
    key, over = page.locator("main .press-strong").first, page.get_by_role("heading", name="What came of it")
    while not over.count():
        before = page.locator("main").inner_text()
        key.click()
        expect(page.locator("main [data-waits]")).to_have_count(0)
        expect(page.locator("main")).not_to_have_text(before, use_inner_text=True)


def _pouring(page: Page, lumso: Running) -> None:
    while not (says := page.get_by_role("heading", level=1).inner_text()).startswith("Mix "):
        button(page, "Leave it out")
        expect(page.get_by_role("heading", level=1)).not_to_have_text(says)
    page.locator("footer").get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_text(re.compile("Still to pour|All in")).first).to_be_visible()


def _judging(page: Page, lumso: Running) -> None:
    _pouring(page, lumso)
    foot = page.locator("footer")
    for _ in range(2):
        foot.get_by_role("button", name="All in").click()
    foot.get_by_role("button", name="It is stirred").click()
    expect(page.get_by_role("heading", name="milk", exact=True)).to_be_visible()


BACKUPS = "Backups and deleted jobs"
JOB, BENCH = "/jobs/{job}", "/jobs/{job}/bench"
AT_LAYER = f"{JOB}/finish?zone={{zone}}&layer={{layer}}&tab=layout"

STATES = (
    State("places", "/", "Today", "Jobs"),
    State("places", "/new", "New job", "New job"),
    State("places", "/left?mix=glaze-retarded", "What is left", "What is left", press=("another mix",)),
    State("places", "/ask?on=recipe/paint-wash-raw-wood", "Ask", "Ask about a finish"),
    State("places", "/days", "Days", "Days"),
    State("places", "/book", "Recipe book", "Recipe book"),
    State("places", "/book/dark-wax", "Tinted wax, dark with clear", "Tinted wax, dark with clear"),
    State("places", "/book/salt-wash", "", "", make=_change, route="/book/{slug}/change"),
    State("places", "/book/compare?a=salt-wash&b=milk-paint", "Two recipes", "Side by side"),
    State("workshop", "/shelf", "Shelf", "Shelf", press=("texture powder",)),
    State("workshop", "/buying", "Buying", "Buying"),
    State("workshop", "/kit?kit=us-spoons", "Measuring kit", "Measuring kit",
          press=("Measure with this kit", "Copy as another kit"), press_at=(1280,)),
    State("workshop", "/log", "Log", "Log"),
    State("workshop", "/log/jars", "Log", "Log"),
    State("workshop", "/log/learned", "Log", "Log"),
    State("workshop", "/log/pots/{pot}", "", ""),
    State("workshop", "/b/{code}", "", "Milk paint"),
    State("workshop", "/kept", BACKUPS, BACKUPS),
    State("workshop", "/help", "Help", "How this works"),
    State("job", f"{JOB}/piece", "Ticket counter · Piece", "Ticket counter", press=("How many the same: more", "Undo")),
    State("job", f"{JOB}/piece?tab=zones", "Costume wardrobe · Piece", "Costume wardrobe", of="Costume wardrobe"),
    State("job", f"{JOB}/piece?tab=use", "Foyer wall · Piece", "Foyer wall", of="Foyer wall"),
    State("job", f"{JOB}/piece?tab=notes", "Hat stand · Piece", "Hat stand", of="Hat stand"),
    State("job", f"{JOB}/finish", "Ticket counter · Finish", "Ticket counter", press=("Remove", "Undo")),
    State("job", f"{JOB}/finish?tab=findings", "Ticket counter · Finish", "Ticket counter"),
    State("job", f"{JOB}/finish?tab=advice", "Ticket counter · Finish", "Ticket counter"),
    State("job", AT_LAYER, "Proscenium panels · Finish", "Proscenium panels", of="Proscenium panels"),
    State("sides", f"{JOB}/look", "Ticket counter · Look", "Ticket counter"),
    State("sides", f"{JOB}/look?tab=compare", "Programme rack · Look", "Programme rack", of="Programme rack"),
    State("sides", f"{JOB}/look?tab=match", "Programme rack · Look", "Programme rack", of="Programme rack"),
    State("sides", f"{JOB}/look?tab=board", "Programme rack · Look", "Programme rack", of="Programme rack"),
    State("sides", f"{JOB}/mix", "Ticket counter · Mix", "Ticket counter", press=("Coats: more", "Undo")),
    State("sides", f"{JOB}/sheet", "Ticket counter · Sheet", "Ticket counter"),
    State("sides", f"{JOB}/steps", "Ticket counter · Steps", "Ticket counter",
          press=("What it looks like: wiping back",), press_at=(390,)),
    State("sides", f"{JOB}/cost", "Ticket counter · Cost", "Ticket counter"),
    State("sides", f"{JOB}/rehearse", "Programme rack · Rehearsal", "Rehearsal Programme rack", of="Programme rack",
          press=("Sanded to P180", "One back")),
    State("sides", f"{JOB}/rehearse", "", "", of="Programme rack", make=_rehearsed),
    State("sides", f"{JOB}/look?tab=board", "", "", of="Programme rack", make=_board),
    State("bench", BENCH, "", "", of="Programme rack"),
    State("bench", BENCH, "", "", of="Programme rack", make=opens("Something is wrong", "region")),
    State("bench", BENCH, "", "", of="Programme rack", make=shows("Lock to wipe")),
    State("bench", BENCH, "", "", of="Programme rack", make=shows("Programme rack: ")),
    State("bench", BENCH, "", "", of="Programme rack", make=_judging),
    State("bench", BENCH, "", "", of="Prop chest", make=_pouring),
    State("dialogs", "/", "Today", "Jobs", make=opens("Quick pot"), covers=("quick/QuickPot.tsx",)),
    State("dialogs", "/", "Today", "Jobs", make=_keys, covers=("help/Shortcuts.tsx",)),
    State("dialogs", "/kept", BACKUPS, BACKUPS, make=_restoring, covers=("kept/Backups.tsx",)),
    State("dialogs", f"{JOB}/steps", "", "", make=_word, covers=("parts/Worded.tsx",)),
    State("dialogs", f"{JOB}/mix", "", "", make=opens("Mix: "), covers=("parts/Why.tsx",)),
    State("dialogs", f"{JOB}/finish", "", "", make=opens("Finish library"), covers=("finish/Library.tsx",)),
    State("dialogs", f"{JOB}/finish", "", "", make=opens("Mix: ", "listbox"), covers=("parts/ChooserField.tsx",)),
    State("dialogs", f"{JOB}/finish", "", "", make=_menu, covers=("finish/LayerPanel.tsx",)),
    State("dialogs", f"{JOB}/mix", "", "", of="Hat stand", make=_changed_elsewhere, covers=("job/JobView.tsx",)),
    State("errors", "/nowhere", "", "There is nothing at this address"),
    State("errors", "/b/zuzu-99", "", "", make=None),
    State("errors", "/book/no-such-recipe", "", ""),
    State("errors", f"{JOB}/piece", "", "", make=fills("Width", "wide", "for example")),
    State("errors", f"{JOB}/finish", "", "", make=_refused_edit),
    State("errors", "/left?mix=colour-wash", "", "", make=fills("How much is left", "no idea", "ml")),
    State("errors", "/", "Today", "Jobs", make=_rotten),
    State("errors", "/", "Today", "Jobs", make=_no_copies),
    State("errors", "/kept", BACKUPS, BACKUPS, make=_rotten_backup),
    State("errors", f"{JOB}/mix", "", "This job cannot be opened", of="Hat stand", make=_spoilt),
    State("errors", f"{JOB}/mix", "", "", of="Programme rack", make=_away),
    State("nothing", "/", "Today", "Nothing on the bench yet"),
    State("nothing", "/days", "Days", "Days"),
    State("nothing", "/shelf", "Shelf", "Shelf"),
    State("nothing", "/buying", "Buying", "Buying"),
    State("nothing", "/log", "Log", "Log"),
    State("nothing", "/log/jars", "Log", "Log"),
    State("nothing", "/kept", BACKUPS, BACKUPS),
)  # fmt: skip
GROUPS = tuple(dict.fromkeys(state.group for state in STATES))
