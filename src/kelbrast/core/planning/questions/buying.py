"""What to buy next: the additions to a rack that would save most over all jobs, found by replanning them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal

import numpy as np

from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import chosen_route, wishing, work_out
from kelbrast.core.planning.face.step_figures import StepFigures
from kelbrast.core.planning.kernel.step_table import COST, METAL, TIME
from kelbrast.core.surface.face import Wish
from kelbrast.core.validity import REL_TOL, Reals

Gain = Literal["minutes", "metal", "cost"]
_PARTNERS = 14


@dataclass(frozen=True, slots=True)
class Saving:
    """What an addition changes for one job, all pieces (SI). A job that had no route before is `opened`."""

    job: int
    seconds: float
    metal: float
    cost: float
    opened: bool


@dataclass(frozen=True, slots=True)
class Addition:
    """One or two tools of the catalogue, and what they save job by job."""

    tools: tuple[str, ...]
    savings: tuple[Saving, ...]

    def gain(self, by: Gain) -> float:
        """What is saved over all jobs: seconds, m or money."""
        return sum({"minutes": saving.seconds, "metal": saving.metal, "cost": saving.cost}[by] for saving in self.savings)

    @property
    def opened(self) -> int:
        return sum(saving.opened for saving in self.savings)


@dataclass(frozen=True, slots=True)
class BuyingProgress:
    """So many of so many candidates tried; `found`: the best so far, best first."""

    done: int
    total: int
    found: tuple[Addition, ...]


def what_to_buy(jobs: Sequence[Job], *, by: Gain = "minutes", most: int = 8) -> Iterator[BuyingProgress]:
    """Try every single addition, and then pairs of the most useful ones; yields as it goes, so that it can be stopped.

    The pairs are made of the singles that save most and of the tools that the whole catalogue would use: all pairs of the
    catalogue would take too long, and a tool that is in neither list hardly helps another.

    Args:
        jobs: planned from the shop's own rack (`Job.own`).
        by: what is to be saved.  most: how many additions to name.
    """
    bench = [_Bench(number, job) for number, job in enumerate(jobs) if job.own is not None]
    owned = {own_tool.tool for job in jobs if job.own for own_tool in job.own.tools}
    singles = sorted({tool for job in bench for tool in job.new})
    everything = {tool for job in bench for tool in job.used_by_the_catalogue()} - owned
    total, additions = len(singles), list[Addition]()
    for done, tool in enumerate(singles, start=1):
        _keep(additions, _addition(bench, (tool,)))
        yield BuyingProgress(done, total, _best(additions, by, most))
    best = [addition.tools[0] for addition in _best(additions, by, _PARTNERS)]
    partners = sorted({*best, *sorted(everything)[:_PARTNERS]})
    pairs = list(combinations(partners, 2))
    alone = {addition.tools[0]: addition for addition in additions}
    for done, pair in enumerate(pairs, start=total + 1):
        both = _addition(bench, pair)
        if both is not None and all(_worth(both, by) > _worth(alone.get(tool), by) for tool in pair):
            additions.append(both)
        yield BuyingProgress(done, total + len(pairs), _best(additions, by, most))
    yield BuyingProgress(total + len(pairs), total + len(pairs), _best(additions, by, most))


class _Bench:
    """A job with the steps of its faces worked out for the rack and the whole catalogue at once."""

    def __init__(self, number: int, job: Job) -> None:
        assert job.own is not None, "buying is asked for jobs planned from the shop's own rack"
        self.number, self.job = number, job
        have = {own_tool.tool for own_tool in job.own.tools}
        everything = replace(
            job, own=replace(job.own, extras=(*job.own.extras, *(tool for tool in tools() if tool not in have)))
        )
        figures = (work_out(replace(face, wish=Wish()), everything).figures for face in job.faces)
        self.faces: list[StepFigures] = [figure for figure in figures if figure is not None]
        self.new = {tool for face in self.faces for tool in face.surfaces.ids} - have - set(job.own.extras)
        self.base = self.totals(())

    def totals(self, added: tuple[str, ...]) -> Reals | None:
        """Seconds, metal and cost of all pieces with these tools added; None when a face has no route."""
        sums = np.zeros(3)
        for figures in self.faces:
            leave_out = tuple(sorted(self.new.difference(added)))
            chosen = chosen_route(wishing(figures, Wish(leave_out=leave_out)), self.job)
            if chosen.route is None or chosen.wish_note:
                return None
            sums += chosen.route.totals[[TIME, METAL, COST]]
        return sums * self.job.pieces

    def used_by_the_catalogue(self) -> set[str]:
        routes = [(figures, chosen_route(figures, self.job).route) for figures in self.faces]
        return {tool for figures, route in routes if route for tool in figures.ids_of(route)}


def _addition(bench: Sequence[_Bench], added: tuple[str, ...]) -> Addition | None:
    """What an addition saves; None when it changes nothing."""
    savings = []
    for one in bench:
        if not one.new.intersection(added):
            continue
        now = one.totals(added)
        if now is None:
            continue
        if one.base is None:
            savings.append(Saving(one.number, 0.0, 0.0, 0.0, True))
        elif np.any(now < one.base * (1 - REL_TOL)):
            gained = one.base - now
            savings.append(Saving(one.number, float(gained[0]), float(gained[1]), float(gained[2]), False))
    return Addition(added, tuple(savings)) if savings else None


def _keep(found: list[Addition], addition: Addition | None) -> None:
    if addition is not None:
        found.append(addition)


def _worth(addition: Addition | None, by: Gain) -> tuple[int, float]:
    return (0, 0.0) if addition is None else (addition.opened, addition.gain(by))


def _best(found: Sequence[Addition], by: Gain, most: int) -> tuple[Addition, ...]:
    """The best first; of several that save the same on the same jobs, the first."""
    useful = [addition for addition in found if addition.opened or addition.gain(by) > 0]
    ranked = sorted(useful, key=lambda addition: (_worth(addition, by), -len(addition.tools)), reverse=True)
    different = {
        (addition.opened, f"{addition.gain(by):.3g}", tuple(saving.job for saving in addition.savings)): addition
        for addition in reversed(ranked)
    }
    return tuple(sorted(different.values(), key=ranked.index)[:most])
