"""A run at the bench: every state follows from the events, whatever happens to clocks."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from benching import LAYOUT, Bench, stage
from kelbrast.core.bench.events import Event, Moment, elapsed
from kelbrast.core.bench.expected import cost_of_order, left_in_order
from kelbrast.core.bench.run import Layout, Run, Waiting, begin
from kelbrast.core.bench.taps import check_undo, happen, replay
from kelbrast.core.bench.told import tell, tell_one
from kelbrast.core.errors import BadInput

KINDS = st.sampled_from(
    ["started", "paused", "gone", "more", "back", "skipped", "picked", "order", "changed", "recharged", "note", "waiting",
     "operated", "undone"]
)  # fmt: skip
TAPS = st.lists(st.tuples(KINDS, st.floats(0, 500), st.integers(1, 4)), max_size=40)


def play(taps: list[tuple[str, float, int]]) -> tuple[list[Event], Run]:
    """Tap whatever can be tapped; what is refused leaves everything as it was."""
    events: list[Event] = []
    run, now = begin(LAYOUT), 0.0
    for kind, later, which in taps:
        now += later
        more: dict[str, Any] = {"seconds": 30.0, "words": "said", "order": "piece" if which % 2 else "step", "piece": which}
        more |= {"tool": "flap-p180", "operation": "wax"}
        if run.current is not None:
            piece, at = run.current
            if kind != "picked":
                more |= {"piece": piece, "stage": at.key}
            if kind == "back":
                more |= {
                    "stages": (
                        stage(at.face, 1, tool="paper-p120", route=run.next_route, leaves=12e-6),
                        replace(at, step=2, route=run.next_route),
                    )
                }
        more |= {"undoes": run.last.number if run.last else 0}
        event = Event(kind, len(events) + 1, Moment(now, now, "a"), **more)
        try:
            if kind == "undone":
                check_undo(run, event)
                after = replay(LAYOUT, [*events, event])
            else:
                after = happen(run, event)
        except BadInput:
            assert replay(LAYOUT, events) == run
            continue
        events.append(event)
        run = after
    return events, run


@settings(max_examples=many(50))
@given(TAPS)
def test_the_live_state_is_the_replayed_one(taps) -> None:
    events, run = play(taps)
    assert replay(LAYOUT, events) == run
    said = {one.event.number: one.said for one in tell(LAYOUT, events)}  # every event can be said
    last = run.last.number if run.last is not None else 0
    assert tell_one(LAYOUT, events, last) == said.get(last)


@settings(max_examples=many(35))
@given(TAPS, st.sampled_from(["started", "gone", "more", "paused", "skipped", "order", "note", "changed"]))
def test_taking_back_the_last_tap_is_as_if_it_never_happened(taps, kind) -> None:
    events, before = play(taps)
    after, run = play([*taps, (kind, 7.0, 1)])
    if len(after) == len(events):
        return  # it could not happen
    undone = Event("undone", len(after) + 1, Moment(1e6, 1e6, "a"), undoes=after[-1].number)
    check_undo(run, undone)
    assert replace(replay(LAYOUT, [*after, undone]), seen=0) == replace(before, seen=0)


@settings(max_examples=many(35))
@given(TAPS)
def test_no_time_is_lost_or_made(taps) -> None:
    events, run = play([tap for tap in taps if tap[0] != "undone"])
    running = 0.0
    since = None
    for event in events:  # counted independently: the clock runs from a start to whatever stops it
        if since is not None and event.kind in ("paused", "gone", "back", "skipped", "picked", "changed", "recharged"):
            running += event.at.at - since
            since = event.at.at if event.kind in ("changed", "recharged") else None
        if event.kind == "started" or (event.kind == "more" and since is None):
            since = event.at.at
    assert sum(work.seconds for work in run.works.values()) == pytest.approx(running)


def test_all_pieces_go_through_a_step_before_the_next_and_share_the_tool() -> None:
    bench = Bench()
    seen = []
    while bench.run.current is not None:
        piece, at = bench.run.current
        seen.append((at.tool, at.face, piece))
        bench.do(10)
    assert seen == [
        *[("flap-p180", "barrel", piece) for piece in (1, 2, 3)],
        *[("flap-p180", "flange", piece) for piece in (1, 2, 3)],
        *[("sewn-tripoli", "barrel", piece) for piece in (1, 2, 3)],
    ]


def test_one_piece_through_stays_with_the_piece() -> None:
    bench = Bench()
    bench.tap("order", order="piece")
    bench.tap("picked", piece=2)
    for _ in range(3):
        assert bench.run.current is not None
        assert bench.run.current[0] == 2
        bench.do(10)
    assert bench.run.current[0] == 1


def test_what_an_order_costs_is_what_it_then_takes() -> None:
    """Brute force: walk the order and count the times the tool differs."""
    bench = Bench()
    bench.do(5)
    for order in ("step", "piece"):
        walked = Bench()
        walked.run = bench.run
        walked.now = bench.now
        walked._numbers = iter(range(50, 200))
        walked.tap("order", order=order)
        tools = []
        while walked.run.current is not None:
            tools.append(walked.run.current[1].tool)
            walked.do(5)
        changes = sum(a != b for a, b in zip([None, *tools], tools, strict=False))
        cost = cost_of_order(bench.run, order)
        assert cost.changes == changes
        assert cost.seconds == pytest.approx(30 * changes)
        assert len(left_in_order(bench.run, order)) == len(tools)
    assert cost_of_order(bench.run, "step").changes < cost_of_order(bench.run, "piece").changes


def test_going_back_replaces_what_was_left_and_keeps_what_was_done() -> None:
    bench = Bench(Layout(1, LAYOUT.stages))
    bench.do(40)  # barrel, flap
    bench.do(20)  # flange, flap
    bench.tap("started")
    back = (
        stage("barrel", 1, tool="paper-p120", route=1, leaves=12e-6),
        stage("barrel", 2, tool="flap-p180", route=1, leaves=8e-6),
    )
    run = bench.tap("back", after=15, stages=back, depth=6e-6, extent="whole")
    assert [stage.tool for stage in run.stages[1]] == ["flap-p180", "flap-p180", "sewn-tripoli", "paper-p120", "flap-p180"]
    assert run.works[1, "barrel", 0, 1].seconds == 40
    assert run.works[1, "barrel", 0, 2].outcome == "back"
    assert run.works[1, "barrel", 0, 2].seconds == 15
    assert run.current == (1, back[0])


def test_a_way_back_before_the_last_step_drops_the_steps_after_it() -> None:
    bench = Bench(Layout(1, LAYOUT.stages))
    bench.tap("started")
    run = bench.tap("back", stages=(stage("barrel", 1, tool="paper-p120", route=1, leaves=12e-6),))
    assert run.works[1, "barrel", 0, 2].outcome == "dropped"
    bench.do(5)
    assert bench.run.current == (1, LAYOUT.stages[2])  # the flange is still to do


def test_a_changed_clock_a_closed_lid_and_a_new_start_lose_no_time() -> None:
    put_back = elapsed(Moment(1000, 50, "a"), Moment(400, 110, "a"))
    assert put_back == 60  # the wall clock went ten minutes back, the machine's own did not
    assert elapsed(Moment(1000, 50, "a"), Moment(1090, 3, "b")) == 90  # started again in between
    assert elapsed(Moment(1000, 50, "a"), Moment(900, 3, "b")) == 0  # and the clock put back: never below nothing


def test_midnight_and_the_end_of_summer_time_are_nothing_special() -> None:
    bench = Bench(Layout(1, (stage(),)))
    bench.now = 1_793_494_799.0  # 2026-10-31 23:59:59 UTC, hours before clocks change in many countries
    bench.tap("started")
    run = bench.tap("gone", after=7200)
    assert run.works[1, "barrel", 0, 1].seconds == 7200


@pytest.mark.parametrize(
    ("kind", "more", "field"),
    [
        ("gone", {}, "kind"),  # not begun
        ("paused", {}, "kind"),
        ("skipped", {"words": " "}, "words"),
        ("picked", {"piece": 9}, "piece"),
        ("order", {}, "order"),
        ("changed", {"tool": "belt-p80"}, "tool"),
        ("waiting", {"operation": "oil"}, "operation"),
        ("note", {}, "words"),
        ("trouble", {}, "fault"),
        ("measured", {}, "measured"),
        ("finished", {"well": True}, "kind"),  # steps are left
        ("corrected", {"piece": 1, "stage": ("barrel", 0, 1), "seconds": 5.0}, "stage"),
        ("back", {"stages": ()}, "stages"),
        ("started", {"piece": 1, "stage": ("flange", 0, 1)}, "stage"),  # not the step in hand
    ],
)
def test_what_can_not_have_happened_is_refused_by_name(kind, more, field) -> None:
    with pytest.raises(BadInput) as refused:
        Bench().tap(kind, **more)
    assert refused.value.faults[0].field == field


def test_a_run_that_is_over_takes_notes_but_no_work() -> None:
    bench = Bench(Layout(1, (stage(),)))
    bench.do(30)
    bench.tap("finished", well=True)
    bench.tap("note", words="sealed on Friday")
    bench.tap("corrected", piece=1, stage=("barrel", 0, 1), seconds=25.0)
    assert bench.run.works[1, "barrel", 0, 1].seconds == 25
    with pytest.raises(BadInput):
        bench.tap("changed", tool="paper-p240")


def test_an_abrasive_goes_on_from_piece_to_piece_until_it_is_changed() -> None:
    bench = Bench()
    bench.do(50)
    bench.do(40)
    assert bench.run.on_tool["flap-p180"] == 90
    bench.tap("started")
    bench.tap("changed", after=10, tool="flap-p180")
    assert bench.run.worn_at["flap-p180"] == (100,)
    bench.tap("gone", after=5)
    assert bench.run.on_tool["flap-p180"] == 5
    assert bench.run.changes["flap-p180"] == 1


def test_the_log_can_be_retold_in_words() -> None:
    bench = Bench(Layout(1, (stage(),), ("wax",)))
    bench.tap("started")
    bench.tap("more", after=60, seconds=30.0)
    bench.tap("gone", after=25)
    bench.tap("trouble", fault="haze", words="new cloth")
    bench.tap("finished", well=True)
    texts = [str(one.said) for one in tell(bench.run.layout, bench.events)]
    assert texts[0] == "Began step 1 (piece 1, barrel): P240 hand paper on a block, planned 1:00 on it."
    assert texts[1] == "Old marks still there after 1:00: 0:30 more (piece 1, barrel, step 1)."
    assert texts[2] == "Old marks gone after 1:25 (piece 1, barrel, step 1: P240 hand paper on a block)."
    assert texts[3] == "Trouble (all): A haze or fine swirls stay in the finish. new cloth"
    assert texts[4] == "Finished: as wanted."


@pytest.mark.parametrize(
    ("kind", "more", "field"),
    [
        ("picked", {"piece": 1}, "piece"),
        ("corrected", {"piece": 1, "stage": ("barrel", 0, 1), "seconds": 1.0}, "stage"),
        ("trouble", {}, "fault"),
        ("note", {"piece": 9, "words": "dull"}, "piece"),
        ("undone", {"undoes": 1}, "undoes"),
    ],
)
def test_a_refused_event_names_the_field(kind: str, more: dict[str, Any], field: str) -> None:
    bench = Bench(Layout(1, LAYOUT.stages[:1]))
    if kind == "picked":
        bench.do(5.0)
    with pytest.raises(BadInput) as refused:
        if kind == "undone":
            check_undo(bench.run, Event("undone", 1, Moment(1.0, 1.0, "test"), **more))
        else:
            bench.tap(kind, **more)
    assert refused.value.faults[0].field == field
    assert refused.value.faults[0].message


def test_an_operation_that_waited_and_is_done_keeps_since_when_it_waited() -> None:
    bench = Bench()
    bench.tap("waiting", operation="wax")
    since = bench.run.operations["wax"].since
    assert since is not None
    bench.tap("operated", operation="wax")
    assert bench.run.operations["wax"] == Waiting(since, bench.run.operations["wax"].done)
    assert bench.run.operations["wax"].done is not None


def test_charge_and_abrasive_count_on_from_piece_to_piece_and_while_the_clock_runs() -> None:
    bench = Bench()
    tool = bench.run.current[1].tool
    bench.do(20.0)
    bench.tap("started")
    now = Moment(bench.now + 7.0, bench.now + 7.0, "test")
    assert bench.run.on_tool_now(tool, now) == pytest.approx(27.0)
    assert bench.run.on_tool_now(tool, now, charge=True) == pytest.approx(27.0)
    bench.tap("gone", after=10.0)
    assert bench.run.charged[tool] == pytest.approx(30.0)
    bench.tap("changed", tool="sewn-tripoli")  # it has not worked yet
    assert bench.run.worn_at["sewn-tripoli"] == (0.0,)


def test_after_a_piece_the_one_with_the_least_done_and_then_the_lowest_number_is_in_hand() -> None:
    bench = Bench(Layout(3, LAYOUT.stages[:2]))
    taken = []
    while bench.run.current is not None:
        taken.append((bench.run.current[0], bench.run.current[1].step))
        bench.do(5.0)
    assert taken == [(1, 1), (2, 1), (3, 1), (1, 2), (2, 2), (3, 2)]
