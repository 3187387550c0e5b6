"""The routes that aims, habits and schools would take, beside those that nothing beats."""

from dataclasses import replace

from kelbrast.core.job import AIMS, HABITS, HANDOVERS
from kelbrast.core.planning.face.face_plan import figures_of, plan_face
from kelbrast.core.planning.questions.choices import named_routes, pareto_front
from making import face, job


def test_every_name_stands_once_at_the_route_that_it_would_take() -> None:
    one = face("mirror", depth=20)
    asked = job("brass", one)
    figures = figures_of(one, asked)
    assert figures is not None
    named = named_routes(figures, asked)
    names = [name for each in named for name in each.names]
    assert len(names) == len(set(names))
    assert set(names) <= {*AIMS.values(), *HABITS.values(), *HANDOVERS.values()}
    assert HABITS[asked.habit] not in names, "the habit of the job is where the aims stand"
    assert len({each.route.nodes for each in named}) == len(named)
    by_name = {name: figures.ids_of(each.route) for each in named for name in each.names}
    for change, label in (
        ({"aim": "time"}, AIMS["time"]),
        ({"aim": "metal"}, AIMS["metal"]),
        ({"habit": "long-steps"}, HABITS["long-steps"]),
        ({"handover": "fine-paper"}, HANDOVERS["fine-paper"]),
    ):
        planned = plan_face(one, replace(asked, **change))
        assert by_name[label] == tuple(step.tool.id for step in planned.steps)


def test_the_quickest_is_among_those_that_nothing_beats() -> None:
    one = face("bright", depth=20)
    asked = job("brass", one)
    figures = figures_of(one, asked)
    assert figures is not None
    quickest = next(each for each in named_routes(figures, asked) if AIMS["time"] in each.names)
    assert quickest.route.nodes == pareto_front(figures, asked).routes[0].nodes


def test_a_school_that_the_rack_can_not_keep_is_not_named() -> None:
    one = face("bright", depth=20)
    few = job("brass", one, rack=("hand", "paper-p240", "paper-p1000", "bench-buffer", "sewn-tripoli", "loose-white"))
    figures = figures_of(one, few)
    assert figures is not None
    names = {name for each in named_routes(figures, few) for name in each.names}
    assert plan_face(one, replace(few, handover="fine-paper")).habit_note
    assert HANDOVERS["fine-paper"] not in names
    assert HABITS["long-steps"] in names
