"""What the core says of a few cases, word for word: `python tests/written.py` writes it down, and a test holds the core to it.

A changed label, unit or figure shows as a difference in `written.json`, to be read before it is kept.
"""

import json
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from random import Random
from typing import Any, Final

from kelbrast.core.learning.robust import shrunken_mean
from kelbrast.core.planning.face.face_plan import figures_of, plan_face
from kelbrast.core.planning.questions.buying import what_to_buy
from kelbrast.core.planning.questions.choices import choices, pareto_front
from kelbrast.core.planning.questions.derivation import derivations
from kelbrast.core.planning.questions.guess import bet
from kelbrast.core.planning.questions.house import HouseWay, offers
from kelbrast.core.planning.questions.whatif import what_if
from kelbrast.core.planning.whole.mounting import prepare
from kelbrast.core.planning.whole.plan import plan_job, shortages, without
from kelbrast.core.rack.offer import Own, OwnMachine, OwnTool
from kelbrast.core.reference.loader import record
from kelbrast.core.surface.face import Wish
from kelbrast.core.surface.found import Found
from kelbrast.core.surface.part import Part
from kelbrast.core.wording import tell
from making import face, job, spots
from refusals import DECIDED, MORE

FILE: Final = Path(__file__).with_name("written.json")
CASES: Final[dict[str, tuple[str, dict[str, Any], dict[str, Any]]]] = {
    "brass": ("brass", {"want": "bright", "depth": 30, "worst": 45}, {}),
    "acrylic": ("acrylic", {"want": "bright", "depth": 30}, {}),
    "large stainless": ("stainless-304", {"want": "bright", "depth": 30, "area": 0.2}, {"carried": False}),
    "small and hot": ("brass", {"want": "bright", "after": "P1200", "area": 0.004}, {"part": Part(mass=0.05), "rack": ("bench-buffer", "sisal-tripoli", "loose-white")}),
    "wet copper": ("copper", {"want": "mirror", "depth": 200, "area": 0.08}, {"part": Part(wet="always")}),
    "turned": ("mild-steel", {"want": "N6", "depth": 20, "turned": 0.03, "curved": True}, {"rack": ("lathe", "lathe-cloth-p180", "lathe-cloth-p320", "lathe-cloth-p600")}),
    "worn wheel": ("brass", {"want": "bright", "after": "P2500"}, {"rack": ("bench-buffer", "loose-white"), "diameters": (("loose-white", 0.16),)}),
    "by hand": ("silver", {"want": "mirror", "after": "P1500"}, {"part": Part(held="clamp")}),
}  # fmt: skip


def _sums(stuff: str, of_face: dict[str, Any], of_job: dict[str, Any]) -> list[str]:
    planned = job(stuff, face(**of_face), **of_job)
    made = plan_face(planned.faces[0], planned)
    found = [
        (number, derivation) for number in range(1, len(made.steps) + 1) for derivation in derivations(made, number, planned)
    ]
    return [
        f"{number}. {one.what} = {_figure(one.result)} {one.unit}: {one.formula} | "
        + " | ".join(
            f"{term.symbol}: {term.name} {_figure(term.value)} {term.unit} ({term.constant.source.id if term.constant else ''})"
            for term in one.terms
        )
        for number, one in found
    ]


def _what_if(stuff: str, of_face: dict[str, Any], of_job: dict[str, Any]) -> list[str]:
    planned = job(stuff, face(**of_face), **of_job)
    return [
        f"{one.change} {one.tool.id if one.tool else ''}: {_figure(one.seconds)} s, {_figure(one.more_metal * 1e6)} um more, "
        f"{tell(one.marks_said)}, hurried {tell(one.hurried_said) if one.hurried_said else ''}"
        for one in what_if(planned.faces[0], planned, step=2)[:12]
    ]


def _bet() -> list[Any]:
    one = face("bright", depth=20, worst=80, area=0.05)
    found = bet(one, job("brass", one))
    if found is None:
        return []
    return [found.coarse.id, found.fine.id, *map(_figure, (found.sure, found.trying, found.patch, found.trial, found.clears))]


def _refusal(stuff: str, of_face: dict[str, Any], of_job: dict[str, Any]) -> list[str]:
    planned = job(stuff, face(**of_face), **of_job)
    found = plan_face(planned.faces[0], planned).binding
    return [found.rule, tell(found.reason), tell(found.reason, "inch")] if found else []


def _to_prepare() -> dict[str, Any]:
    jobs = [
        replace(job("brass", replace(face("bright", after="P400"), name="lid")), title="case"),
        replace(job("mild-steel", replace(face("satin", after="P120"), name="arm"), pieces=3), title="bracket"),
        replace(job("brass", replace(face("mirror", after="P240"), name="rim")), title="window"),
    ]
    made = prepare([plan_job(job) for job in jobs])
    return {
        "gather": [[one.tool.id, one.count] for one in made.gather],
        "machines": [
            [
                each.machine.id,
                each.changes,
                list(each.notes),
                [[one.set_up.tool.id, one.set_up.faces, one.spindle, one.mount] for one in each.mounted],
            ]
            for each in made.machines
        ],
    }


def _short() -> list[Any]:
    one = face("bright", depth=30)
    planned = job("brass", replace(one, wish=Wish(lock=("paper-p400",))), pieces=40)
    made = plan_job(planned)
    short = shortages(made, {made.gather[0].tool.id: 2.0, made.gather[-1].tool.id: 1e6})
    best = without(planned, frozenset(each.tool.id for each in short[:2]))
    return [[[each.tool.id, each.need, each.have] for each in short], [step.tool.id for step in best.faces[0].steps]]


def _buying() -> list[Any]:
    """With few papers and one wheel: what would help a job that has a plan and one that has none."""
    papers = [OwnTool(f"paper-p{grade}", item, 10) for item, grade in enumerate((180, 400, 1000), start=1)]
    own = Own((*papers, OwnTool("loose-white", 9, 1)), (OwnMachine("bench-buffer"),))
    jobs = [
        job("brass", face("satin", depth=20, area=0.02), own=own, pieces=3),
        job("brass", face("mirror", depth=20, area=0.01), own=own),
        job("brass", face("satin", depth=20, keep_off=True), own=own),
    ]
    told = {by: list(what_to_buy(jobs, by=by, most=4)) for by in ("minutes", "metal", "cost")}
    return [
        [
            by,
            [steps[0].done, steps[0].total, steps[-1].done, steps[-1].total, len(steps)],
            [
                f"{'+'.join(one.tools)} opens {one.opened}, saves {_figure(one.gain('minutes'))} s {_figure(one.gain('metal') * 1e6)} um "
                f"{_figure(one.gain('cost'))}: {[(saving.job, _figure(saving.seconds), saving.opened) for saving in one.savings]}"
                for one in steps[-1].found
            ],
        ]
        for by, steps in told.items()
    ]


def _choices() -> list[str]:
    faces = (
        replace(face("bright", depth=20), name="lid"),
        replace(face("brushed-fine", depth=20, area=0.02), name="side"),
        replace(face("bright", depth=2, area=0.03, spots=(spots("nick", 200, length_mm=5, width_mm=2),)), name="rim"),
        replace(face("mirror", depth=20, limit_um=5), name="thin"),
    )
    made = choices(replace(job("brass", faces[0]), faces=faces))
    return [
        f"{one.aim} {one.habit} {one.handover} {one.bench_speed}: {one.possible} {one.kept} {_figure(one.seconds)} s "
        f"{_figure(one.metal * 1e6)} um {_figure(one.cost)} {one.changes} changes {one.steps} steps"
        for one in (*made.by_aim, *made.by_habit, *made.by_handover, *made.by_bench_speed)
    ]


def _front(stuff: str, of_face: dict[str, Any], of_job: dict[str, Any]) -> list[str]:
    planned = job(stuff, face(**of_face), **of_job)
    figures = figures_of(planned.faces[0], planned)
    assert figures is not None
    routes = pareto_front(figures, planned).routes
    return [f"{list(figures.ids_of(route))} {[_figure(total) for total in route.totals]}" for route in routes[:10]]


def _spots() -> list[str]:
    found = []
    for count, area, rest, kind in (
        (1, 0.05, 3, "nick"),
        (40, 0.05, 3, "nick"),
        (3, 0.02, None, "pits"),
        (2, 0.3, 10, "raised"),
    ):
        deep = spots(kind, 200, 300, length_mm=20, width_mm=4, count=count)
        one = face("bright", depth=rest or 1, area=area, spots=(deep,))
        one = one if rest else replace(one, found=Found("scratches", as_wanted=True))
        made = plan_face(one, job("brass", one))
        steps = [f"{step.tool.id} {_figure(step.zone.area) if step.zone else 'all'}" for step in made.steps]
        elsewhere = _figure(made.metal_elsewhere) if made.metal_elsewhere is not None else "as much"
        found.append(f"{steps} {_figure(made.seconds)} s, {_figure(made.metal)} m, elsewhere {elsewhere}")
    return found


def _house() -> list[str]:
    one = face("bright", depth=30, area=0.02)
    route = tuple(step.tool.id for step in plan_face(one, job("brass", one)).steps)
    way = HouseWay(1, "lids", "copper-alloy", "bright", "scratches", "open", 20e-6, 0.01, 600.0, 30e-6, route)
    ways = [
        way,
        replace(way, id=2, seconds=500.0),
        replace(way, id=3, depth=19e-6),  # 30 um are more than half as deep again
        replace(way, id=4, family="steel"),
        replace(way, id=5, finish="satin"),
        replace(way, id=6, kind="pits"),
        replace(way, id=7, reach="tight"),
        replace(way, id=8, route=("loose-white",)),
    ]
    return [f"{offer.way.id}: {_figure(offer.seconds_by_log)} s" for offer in offers(one, job("brass", one), ways)]


def _operations() -> list[Any]:
    """What is done around the abrasives, by what the part is and what is done to it."""
    brushed = (replace(face("bright", depth=10), name="lid"), replace(face("brushed-fine", depth=10), name="side"))
    parts = {
        "lacquered brass": job("brass", face("bright", depth=10), part=Part(covering="lacquered")),
        "anodised": job("aluminium-wrought", face("bright", depth=10), part=Part(covering="anodised")),
        "not aluminium": job("brass", face("bright", depth=10), part=Part(covering="anodised")),
        "painted": job("mild-steel", face("satin", depth=10), part=Part(covering="painted")),
        "unknown": job("brass", face("bright", depth=10), part=Part(covering="unknown")),
        "too large for the bath": job("stainless-304", face("satin", depth=10, area=0.05)),
        "acrylic": job("acrylic", face("bright", after="P1500")),
        "ready for paint": job("mild-steel", face("paint-ready", depth=20)),
        "two faces, one brushed": replace(job("brass", brushed[0]), faces=brushed),
        "one kept off": replace(job("brass", brushed[0]), faces=(brushed[0], face("bright", keep_off=True))),
        "nothing to do": job("brass", face("satin", after="P320", keep_off=True)),
        **{
            f"with {key}": job("brass", face("bright", depth=10), part=Part(covering="lacquered", inserts=(key,)))
            for key in record("inserts")
        },
    }
    return [
        [
            name,
            made.blocked,
            [
                f"{operation.id} {operation.when} {_figure(operation.active)} s, {_figure(operation.passive)} s waiting, {operation.counted}, {operation.within}"
                for operation in made.operations
            ],
            list(made.cautions),
        ]
        for name, made in ((name, plan_job(one)) for name, one in parts.items())
    ]


def _robust() -> list[list[float]]:
    """Estimates of a few sets of values: one, some that agree, some that do not, one that is far off."""
    chance = Random(4)
    sets = [[0.3], [0.1, 0.12, 0.09], [-0.4, 0.5, 0.1], [0.2] * 9 + [5.0], [chance.gauss(-0.3, 0.4) for _ in range(25)]]
    scales = (
        {"prior": 0.5, "spread": 0.05, "noise": 0.25, "worth": 4, "huber": 1.345},
        {"prior": 2.0, "spread": 0.3, "noise": 0.1, "worth": 1, "huber": 1.0},
    )
    found = [shrunken_mean(values, **scale) for values in sets for scale in scales]
    return [[_figure(one.mean), _figure(one.error)] for one in found]


def _figure(value: float) -> float:
    return float(f"{value:.4g}")


# Each is worked out when it is asked for: so a mutation tool sees which functions the test of a part runs.
PARTS: Final[dict[str, Callable[[], Any]]] = {
    "sums": lambda: {name: _sums(*case) for name, case in CASES.items()},
    "what if": lambda: {name: _what_if(*CASES[name]) for name in ("brass", "acrylic")},
    "bet": _bet,
    "to prepare": _to_prepare,
    "short": _short,
    "buying": _buying,
    "choices": _choices,
    "front": lambda: {name: _front(*CASES[name]) for name in ("brass", "wet copper")},
    "spots": _spots,
    "house": _house,
    "refusals": lambda: {
        name: _refusal(stuff, of_face, of_job) for name, (stuff, of_face, of_job, *_) in {**DECIDED, **MORE}.items()
    },
    "operations": _operations,
    "robust": _robust,
}


if __name__ == "__main__":
    made = {part: make() for part, make in PARTS.items()}
    FILE.write_text(json.dumps(made, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
