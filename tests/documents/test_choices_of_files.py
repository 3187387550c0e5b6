"""What a file may say stands once: the names of a choice are the keys of the core's table, in its order."""

from typing import Any, get_args

import pytest

from kelbrast.core import job
from kelbrast.core.catalogue import finishes
from kelbrast.core.surface import edge, face, found, part, shapes


@pytest.mark.parametrize(
    ("names", "table"),
    [
        (job.Aim, job.AIMS),
        (job.HabitKey, job.HABITS),
        (job.Handover, job.HANDOVERS),
        (job.BenchSpeed, job.BENCH_SPEEDS),
        (job.JobState, job.JOB_STATES),
        (finishes.LayWanted, finishes.LAYS_WANTED),
        (edge.EdgeWanted, edge.EDGES_WANTED),
        (found.FoundKind, found.FOUND_KINDS),
        (face.Reach, face.REACHES),
        (part.Covering, part.COVERINGS),
        (part.Protect, part.PROTECTIONS),
        (part.Held, part.HELD),
        (part.Wet, part.WET),
        (shapes.ShapeKind, shapes.SHAPES),
    ],
)
def test_the_names_are_the_keys_of_the_table(names: Any, table: dict[str, Any]) -> None:
    assert get_args(names) == tuple(table)


def test_kinds_that_are_singled_out_are_kinds() -> None:
    assert set(found.MUST_BE_LEVELLED) <= set(found.FOUND_KINDS)
    assert {*found.ALL_OVER_KINDS, *found.SPOT_KINDS} == set(found.FOUND_KINDS)
    assert set(job.ORDERED_STATES) < set(job.OPEN_STATES) < set(job.JOB_STATES)
