"""A bore to practise on: the same number the same bore, its decisions scored, and the program's own way beside them."""

import pytest

from kelbrast.core.errors import BadInput
from kelbrast.core.practice.bores import LEVELS, practice_bore, practice_end, practice_read

UM = 1e-6


@pytest.mark.parametrize("difficulty", LEVELS)
def test_every_bore_can_be_brought_to_size(difficulty: int) -> None:
    ends = []
    for seed in range(60):
        bore = practice_bore(difficulty, seed)
        assert bore.hidden.size + bore.hidden.oval / 2 < bore.part.wanted.high
        ends.append((practice_end(bore, ()), bore.part.wanted))
    there = [limits.low <= end.program_size <= limits.high for end, limits in ends]
    assert sum(there) >= 58
    assert not any(end.on_size for end, _ in ends)


def test_the_same_number_is_the_same_bore_and_reads_the_same() -> None:
    bore, again, other = practice_bore(2, 5), practice_bore(2, 5), practice_bore(2, 6)
    assert practice_read(bore, (60.0,)) == practice_read(again, (60.0,))
    assert practice_read(bore, ()) != practice_read(other, ())
    assert len(practice_read(bore, ())) == 12
    before, after = practice_read(bore, (), widest=bore.hidden.widest), practice_read(bore, (400.0,), widest=bore.hidden.widest)
    assert len(before) == 4
    assert min(one.diameter for one in after) > min(one.diameter for one in before)
    narrow = sum(one.diameter for one in before) / 4
    assert narrow == pytest.approx(bore.hidden.size - bore.hidden.oval / 2, abs=4 * UM)


def test_points_are_for_size_first_and_for_few_rounds_then() -> None:
    bore = practice_bore(1, 3)
    short = practice_end(bore, (1.0,))
    assert (short.on_size, short.points, short.said.code) == (False, 0, "practice.bore-short")
    past = practice_end(bore, (36_000.0,))
    assert (past.on_size, past.points, past.said.code) == (False, 0, "practice.bore-past")
    limits = bore.part.wanted
    start = practice_end(bore, ()).size
    seconds = ((limits.low + limits.high) / 2 - start) / bore.hidden.rate
    for rounds, points in ((1, 100), (3, 100), (4, 92)):
        end = practice_end(bore, [seconds / rounds] * rounds)
        assert (end.on_size, end.points) == (True, points), rounds


@pytest.mark.parametrize("difficulty", [0, 4, -1])
def test_there_are_three_difficulties(difficulty: int) -> None:
    with pytest.raises(BadInput):
        practice_bore(difficulty, 1)
