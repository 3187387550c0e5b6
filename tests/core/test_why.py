"""The sums behind a step come out at the numbers of the plan."""

import math

import pytest

from kelbrast.core.planning.why import why
from making import face, job, plan


@pytest.mark.parametrize("stuff", ["brass", "acrylic", "stainless-304"])
def test_the_terms_make_the_result(stuff: str) -> None:
    made = plan(stuff, face("bright", depth=30, worst=45))
    for number, step in enumerate(made.steps, start=1):
        sums = {one.what: one for one in why(made, number, job(stuff, made.face))}
        marks = {term.symbol: term.value for term in sums["Depth of its own marks"].terms}
        by_hand = marks["r"] * marks["a"] * marks["g"] ** marks["n"] * marks["c"] * (marks["H₀"] / marks["H"]) ** marks["e"]
        assert by_hand == pytest.approx(sums["Depth of its own marks"].result)
        layer = {term.symbol: term.value for term in sums["Layer to take off"].terms}
        m = layer["m"] if "m" in layer else layer["m_A"] * (1 + layer["s"])
        assert m * layer["d"] == pytest.approx(sums["Layer to take off"].result)
        if step.fit.machine.orbit is None and step.fit.setting.spindle:
            speed = {term.symbol: term.value for term in sums["Surface speed"].terms}
            assert math.pi * speed["D"] / 1000 * speed["n"] / 60 == pytest.approx(sums["Surface speed"].result)
        assert sums["Longest stay on one spot"].result == step.fit.stay


def test_every_constant_has_its_source() -> None:
    made = plan("brass", face("mirror", depth=30, thickness=0.002))
    for number in range(1, len(made.steps) + 1):
        for one in why(made, number, job("brass", made.face)):
            assert len({term.symbol for term in one.terms}) == len(one.terms), one.what
            assert any(term.constant is not None for term in one.terms), one.what
            assert all(term.constant.source.title for term in one.terms if term.constant is not None)
