"""Print how long looks take on this machine: pictures cold, strips, tiles of a piece, and a colour matched."""

from functools import partial
from itertools import count

from figures import ONCE, ROOT, median_ms, row
from lumso.catalogue import shipped
from lumso.core.advice.bench import Trial, with_finish
from lumso.core.colour.spectra import reflectance
from lumso.core.job.job import Use, Zone
from lumso.core.layers.conditions import steady
from lumso.core.layers.stack import Stack
from lumso.core.look import noise
from lumso.core.look.look import Look
from lumso.core.look.match import Palette, ShelfPaint, matches
from lumso.core.look.spoons import in_spoons
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from lumso.formats.jobfile import from_json
from lumso.formats.png import png

C = shipped()


def stack_of(slug: str) -> Stack:
    finish = C.finishes[slug]
    bench = Trial(Use(), (), C, steady())
    zone = Zone("z", "Zone", finish.grounds[0], (), (), relief=finish.shown_on)
    return bench.stack(with_finish(zone, finish, bench, (f"b{n}" for n in count()))[0])


def cold(stack: Stack, px: int) -> bytes:
    """A picture with nothing remembered: patterns, films, light, PNG."""
    noise.pattern.cache_clear()
    look = Look(stack)
    return png(look.picture(px), look.side_mm)


def main() -> None:
    stacks = {slug: stack_of(slug) for slug in (list(C.finishes)[:2] if ONCE else C.finishes)}
    for px, most in ((160, 40), (320, 120), (640, 500)):
        took = {slug: median_ms(partial(cold, stack, px), 3) for slug, stack in stacks.items()}
        slowest = max(took, key=lambda s: took[s])
        row(f"chip {px} px, cold, the usual finish (wanted: {most})", sorted(took.values())[len(took) // 2])
        row(f"chip {px} px, cold, the slowest finish", took[slowest])
    row("strip of six layers with its ranges", median_ms(lambda: Look(stack_of("stone-wall")).column, 20))
    row("colours of six layers, as the plan asks", median_ms(lambda: Look(stack_of("stone-wall")).colours, 20))
    job = from_json((ROOT / "src/lumso/demo/jobs/costume-wardrobe.json").read_bytes(), "job")
    zones = [z.stack for z in work(job, Workshop(), C, steady()).jobs[0].zones if z.stack]
    six = [zones[i % len(zones)] for i in range(6)]

    def tiles() -> None:
        noise.pattern.cache_clear()
        for stack in six:
            png(Look(stack).picture(320, 1800.0))

    row("a piece with six zones, filled with its looks", median_ms(tiles, 5))
    hexes = [
        f"#{(37 * i * i + 40) % 256:02x}{(91 * i + 30) % 256:02x}{(53 * i + 90) % 256:02x}"
        for i in range(6 if ONCE else 20)
    ]
    shelf = [ShelfPaint(h, h, h) for h in hexes]
    wanted = reflectance("#8aa09a")
    asked = median_ms(lambda: matches(wanted, Palette(shelf, C.optics, None)), 5)
    row("three of twenty paints matched, cold (wanted: 1000)", asked)
    palette = Palette(shelf, C.optics, None)
    best = matches(wanted, palette, 1)[0]
    row("that in spoons", median_ms(lambda: in_spoons(best, 60, C.kits["metric-spoons"], palette), 5))


if __name__ == "__main__":
    main()
