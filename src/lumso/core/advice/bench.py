"""A zone to try things out on: what the checker would find if the zone were different."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue, pick
from ..book.finishes import Finish
from ..changes.change import Remedy, apply
from ..changes.finish import acceptances, layers_of
from ..checks import brings, check, holds, look
from ..checks.findings import Finding
from ..job.areas import measure
from ..job.job import Job, Use, Zone, use_of
from ..layers.conditions import Room
from ..layers.laid import lay
from ..layers.stack import Stack
from ..piece.kinds import FaceGroup
from ..value import Value

HELPFUL = {"grain-rises", "raw-wood-unsanded", "not-dusted"}
"""Notes that are worth acting on before anybody asks."""
SEALS = {"unsealed-hands", "texture-bare", "binder-thinned"}
"""Notes that ask for a sealer: acted on for a finish that is sealed as its use asks."""
TRIES = 24


@dataclass(frozen=True)
class Taken(Value):
    """A remedy that was taken: the rule, what it says and why, and what was done."""

    rule: str
    says: str
    reason: str
    did: str


@dataclass(frozen=True)
class Trial:
    """A job's zone with all that is needed to check it as it is, or as it might be."""

    use: Use
    surfaces: tuple[FaceGroup, ...]
    catalogue: Catalogue
    room: Room

    def stack(self, zone: Zone) -> Stack:
        """The zone as the checker reads it. Raises UnknownEntry, InvalidValue or ImpossibleRecipe."""
        ground = pick("ground", self.catalogue.grounds, zone.ground)
        laid = tuple(lay(layer, self.catalogue) for layer in zone.layers)
        return Stack(zone, ground, use_of(zone, self.use), self.surfaces, self.room, laid, self.catalogue)

    def findings(self, zone: Zone) -> tuple[Finding, ...]:
        """What the checker finds in it."""
        return check(self.stack(zone))


def trial(job: Job, index: int, catalogue: Catalogue, room: Room) -> Trial:
    """A trial of one of a job's zones; `catalogue` already holds the job's and the workshop's entries."""
    zone = job.zones[index]
    surfaces = measure(job).surfaces
    mine = tuple(surfaces[s] for s in zone.surfaces if s in surfaces)
    return Trial(job.use, mine, catalogue, room)


def _next_way(stack: Stack, tried: set[tuple[str, str, str]], notes: set[str]) -> tuple[Finding, Remedy] | None:
    """The first open finding worth acting on, and the first of its remedies that holds and was not tried before."""
    findings = look(stack)
    for finding in findings:
        wanted = finding.grade != "good to know" or finding.rule in notes
        if finding.accepted is not None or not wanted:
            continue
        untried = [one for one in finding.remedies if (finding.rule, finding.above, one.says) not in tried]
        held = [one for one in untried if holds(stack, findings, finding, one)]
        if held:  # one that brings nothing else comes first; what another brings is mended next
            clean = (one for one in held if len(held) == 1 or brings(stack, findings, one) is None)
            return finding, next(clean, held[0])
    return None


def remedied(zone: Zone, bench: Trial, ids: Iterator[str], seal: bool = True) -> tuple[Zone, tuple[Taken, ...]]:
    """The zone with the first remedy taken of each open finding worse than a note, lowest boundary first.

    With `seal`, notes that ask for a sealer are acted on too. What has no remedy stays.
    """
    tried: set[tuple[str, str, str]] = set()
    done = []
    notes = HELPFUL | (SEALS if seal else set())
    for _ in range(TRIES):
        found = _next_way(bench.stack(zone), tried, notes)
        if found is None:
            break
        finding, one = found
        tried.add((finding.rule, finding.above, one.says))
        zone = apply(zone, one.changes, bench.catalogue, ids)
        done.append(Taken(finding.rule, finding.says, finding.reason, one.says))
    return zone, tuple(done)


def with_finish(zone: Zone, finish: Finish, bench: Trial, ids: Iterator[str]) -> tuple[Zone, tuple[Taken, ...]]:
    """The zone with a finish of the library on it, prepared, primed and sealed as its ground and use ask.

    Its old layers and preparations go; what the finish means on purpose is accepted with its reason.
    """
    ground = pick("ground", bench.catalogue.grounds, zone.ground)
    layers = layers_of(finish, ground.surface, bench.catalogue, ids)
    bare = replace(zone, layers=layers, prep=(), finish=finish.slug, accepted=acceptances(finish, layers))
    return remedied(bare, bench, ids, finish.sealed == "by use")
