"""What comes next if everything goes as planned, and what each tap may do and may not."""

from dataclasses import replace

import pytest

from benching import LAYOUT, Bench, stage
from kelbrast.core.bench.events import Moment
from kelbrast.core.bench.expected import Foreseen, ahead
from kelbrast.core.bench.run import Layout
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.surface.sized import Gauge, RoundPart, Sized, SizeLimits
from making import face, job

ONE = job("brass", replace(face("bright"), name="barrel"))
BOTH: Job = replace(ONE, faces=(*ONE.faces, replace(ONE.faces[0], name="flange")))


def foreseen(bench: Bench, most: int = 24, of: Job = BOTH) -> list[Foreseen]:
    return list(ahead(bench.run, of, Moment(bench.now, bench.now, "test"), most))


def test_each_step_ends_when_its_planned_time_is_over() -> None:
    bench = Bench()
    told = foreseen(bench)
    assert [one.at.at for one in told] == [60.0 * step for step in range(1, 10)]  # three pieces of three steps of a minute
    assert told[-1].run.current is None
    assert sum(work.seconds for work in told[-1].run.works.values()) == pytest.approx(9 * 60)
    assert len(foreseen(bench, most=4)) == 4


def test_what_was_worked_already_and_what_was_added_count() -> None:
    bench = Bench()
    bench.tap("started")
    bench.tap("paused", after=20)
    assert foreseen(bench)[0].at.at == pytest.approx(bench.now + 40)
    bench.tap("more", seconds=30.0)  # and the clock runs again
    assert foreseen(bench)[0].at.at == pytest.approx(bench.now + 70)
    bench.now += 200  # much longer than planned: it is over at once, never in the past
    assert foreseen(bench)[0].at.at == pytest.approx(bench.now)


def test_nothing_comes_after_the_end_nor_where_a_gauge_decides() -> None:
    over = Bench(Layout(1, (stage(),)))
    over.do(60)
    assert foreseen(over) == []
    stopped = Bench()
    stopped.tap("stopped")
    assert foreseen(stopped) == []
    barrel, flange = BOTH.faces
    sized = replace(
        BOTH,
        faces=(barrel, replace(flange, sized=Sized(RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3)), Gauge(2e-6, 1e-6)))),
    )
    told = foreseen(Bench(), of=sized)
    assert told
    assert all(work[1] == "barrel" for one in told for work in one.run.works)


TAPS = {
    "started": {}, "paused": {}, "gone": {}, "accepted": {}, "more": {"seconds": 5.0}, "skipped": {"words": "enough"},
    "back": {"stages": (stage(route=1),)},
}  # fmt: skip


@pytest.mark.parametrize("kind", TAPS)
@pytest.mark.parametrize("about", [{"piece": 2}, {"stage": ("flange", 0, 1)}, {"piece": None}, {"stage": None}])
def test_work_is_only_tapped_for_the_piece_and_the_step_in_hand(kind: str, about: dict[str, object]) -> None:
    bench = Bench()
    if kind != "started":
        bench.tap("started")
    before = bench.run
    with pytest.raises(BadInput) as refused:
        bench.tap(kind, **{"piece": 1, "stage": ("barrel", 0, 1), **TAPS[kind], **about})
    assert [fault.field for fault in refused.value.faults] == ["stage"]
    assert bench.run == before


@pytest.mark.parametrize(
    ("kind", "more", "field"),
    [
        ("more", {"seconds": None}, "seconds"),
        ("more", {"seconds": 0.0}, "seconds"),
        ("skipped", {"words": "  "}, "words"),
        ("note", {"words": " "}, "words"),
        ("trouble", {"words": ""}, "fault"),
        ("measured", {}, "measured"),
        ("photo", {}, "photo"),
        ("picked", {"piece": None}, "piece"),
        ("picked", {"piece": 9}, "piece"),
        ("note", {"words": "said", "piece": 9}, "piece"),
        ("order", {"order": None}, "order"),
        ("changed", {"tool": "paper-p400"}, "tool"),
        ("operated", {"operation": "lacquer"}, "operation"),
        ("finished", {"well": True}, "kind"),
        ("back", {"stages": ()}, "stages"),
        ("back", {"stages": (stage("flange", route=1),)}, "stages"),
        ("back", {"stages": (stage(route=1), stage(route=2))}, "stages"),
        ("corrected", {"piece": 1, "stage": ("barrel", 0, 1), "seconds": 5.0}, "stage"),  # it is not over
        ("corrected", {"piece": 1, "stage": ("flange", 0, 1), "seconds": 5.0}, "stage"),  # nor begun
    ],
)
def test_what_is_missing_or_wrong_is_named(kind: str, more: dict[str, object], field: str) -> None:
    bench = Bench()
    bench.tap("started")
    with pytest.raises(BadInput) as refused:
        bench.tap(kind, **more)
    assert [fault.field for fault in refused.value.faults] == [field]


def test_trouble_is_told_by_name_or_in_words() -> None:
    bench = Bench()
    bench.tap("trouble", fault="burn")
    bench.tap("trouble", words="it sings")
    assert [one.kind for one in bench.run.standing] == ["trouble", "trouble"]


def test_a_corrected_time_replaces_the_clock_and_may_be_none() -> None:
    bench = Bench()
    bench.do(500)
    bench.tap("corrected", piece=1, stage=("barrel", 0, 1), seconds=0.0)
    assert bench.run.works[1, "barrel", 0, 1].seconds == 0
    with pytest.raises(BadInput):
        bench.tap("corrected", piece=1, stage=("barrel", 0, 1), seconds=-1.0)


def test_a_run_ends_well_or_not_once_everything_is_done() -> None:
    bench = Bench(Layout(1, (stage(),)))
    bench.do(60)
    with pytest.raises(BadInput):
        bench.tap("finished", well=None)
    assert (bench.tap("finished", well=False).status, bench.run.well) == ("finished", False)


def test_a_run_that_is_stopped_keeps_the_time_of_the_step_in_hand() -> None:
    bench = Bench()
    bench.tap("started")
    stopped = bench.tap("stopped", after=25)
    assert (stopped.status, stopped.well, stopped.clock, stopped.begun) == ("stopped", False, None, False)
    assert stopped.works[1, "barrel", 0, 1].seconds == 25
    with pytest.raises(BadInput):
        bench.tap("started")


def test_a_photo_belongs_to_a_piece_that_there_is() -> None:
    bench = Bench()
    assert bench.tap("photo", photo=3, piece=2).standing[-1].photo == 3
    with pytest.raises(BadInput):
        bench.tap("photo", photo=3, piece=4)


def test_the_order_keeps_the_piece_whose_step_was_begun() -> None:
    bench = Bench(LAYOUT)
    bench.tap("picked", piece=2)
    bench.tap("order", order="step")
    assert bench.run.current is not None
    assert bench.run.current[0] == 1  # not begun: by steps, the first piece comes first
    bench.tap("picked", piece=2)
    bench.tap("started")
    bench.tap("order", order="step")
    assert bench.run.current[0] == 2


def test_a_change_in_the_middle_counts_what_the_old_one_did() -> None:
    bench = Bench()
    bench.tap("started")
    bench.tap("changed", after=25, tool="flap-p180")
    bench.tap("recharged", after=10, tool="flap-p180")
    bench.tap("gone", after=5)
    assert bench.run.worn_at == {"flap-p180": (25.0,)}
    assert bench.run.on_tool["flap-p180"] == 15.0
    assert bench.run.charged["flap-p180"] == 5.0
    assert bench.run.works[1, "barrel", 0, 1].seconds == 40.0
