"""The sums behind a step come out at the numbers of the plan."""

import math
from typing import Any

import pytest

from kelbrast.core.planning.face.face_plan import plan_face
from kelbrast.core.planning.questions.derivation import derivations
from kelbrast.core.surface.part import Part
from making import face, job, plan, spots

GOUGES = spots("scratches", 120, 150, length_mm=30, width_mm=3, count=2, name="gouges", id="gouges")
PROUD = spots("raised", 200, 260, length_mm=8, width_mm=8, name="solder", id="solder")


def by_hand(what: str, terms: dict[str, float], formula: str) -> float:
    """The formula of a sum, worked out from its terms alone."""
    t = terms
    match what:
        case "Depth of its own marks":
            held = math.hypot(t["a"] * t["g"] ** t["n"] * t["c"], t.get("f", 0.0))
            return t["r"] * held * (t["H₀"] / t["H"]) ** t["e"] * t.get("yours", 1.0)
        case "Wear coefficient":
            return t["K₀"] * (t["g"] / t["g₀"]) ** t["p"]
        case "Surface speed":
            return math.pi * t["D"] / 1000 * t["n"] / 60
        case "Minutes of the step":
            changes = t["changes"] * t["change"] if "change" in t else 0.0
            return sum(t.get(one, 0.0) for one in ("set-up", "work", "check", "wash", "wipe", "rests")) + changes
        case "Layer to take off":
            if "knocked" in formula:
                return max(t["d"] - t["own"], t["own"])
            times = t["m"] if "m" in t else t["m_A"] * (1 + t["s"]) if "m_A" in t else 1.0
            return max(times * t.get("d", 0.0), t["own"])
        case "Metal that is cut, cm³":
            return sum(t[f"t{at}"] * t[f"A{at}"] * 1e-4 for at in range(1, 10) if f"t{at}" in t)
        case "Cost of what is used up":
            return t["worn"] * t["price"]
        case "Work between two rests":
            loss = t["h"] * t["A"] * 1e-4
            return -t["m·c"] / loss * math.log1p(-(t["T"] - 20) * loss / t["P"])
    raise AssertionError(what)


CASES = [
    ("brass", {"want": "bright", "depth": 30, "worst": 45}, {}),
    ("acrylic", {"want": "bright", "depth": 30}, {}),
    ("stainless-304", {"want": "bright", "depth": 30, "area": 0.2}, {"carried": False}),
    ("brass", {"want": "bright", "after": "P1200", "area": 0.004}, {"part": Part(mass=0.05), "rack": ("bench-buffer", "sisal-tripoli", "loose-white")}),
    ("copper", {"want": "mirror", "depth": 200, "area": 0.08}, {"part": Part(wet="always")}),
    ("brass", {"want": "bright", "depth": 8, "area": 0.3, "spots": (GOUGES,)}, {}),
    ("brass", {"want": "bright", "after": "P400", "area": 0.3, "spots": (GOUGES, PROUD)}, {}),
    ("stainless-304", {"want": "satin", "after": "P120", "area": 0.3, "lay_runs_out": True, "spots": (GOUGES, PROUD)}, {}),
]  # fmt: skip


@pytest.mark.parametrize(("stuff", "of_face", "of_job"), CASES)
def test_the_terms_make_the_result(stuff: str, of_face: dict[str, Any], of_job: dict[str, Any]) -> None:
    planned = job(stuff, face(**of_face), **of_job)
    made = plan_face(planned.faces[0], planned)
    assert made.steps
    for number, step in enumerate(made.steps, start=1):
        sums = {derivation.what: derivation for derivation in derivations(made, number, planned)}
        terms = {what: {term.symbol: term.value for term in one.terms} for what, one in sums.items()}
        terms["Minutes of the step"]["changes"] = round(step.use.at_hand) - 1
        orbital = step.on_face.machine.orbit is not None
        told_by_hand = {"Time on the work", "Longest stay on one spot", "Old marks still there at the end"}
        for what in sums.keys() - told_by_hand - ({"Surface speed"} if orbital else set()):
            assert by_hand(what, terms[what], sums[what].formula) == pytest.approx(sums[what].result, rel=1e-6), what
        work = terms["Time on the work"]
        volume = work["V"] * 1e-6 if "V" in work else step.marks.likely_layer * work["A"] * 1e-4
        probably = volume / (work["η·K·F·v/H"] * 1e-9) / 60
        assert sums["Time on the work"].result >= probably * (1 - 1e-9)  # longer as it dulls
        assert math.isfinite(step.on_face.life) or sums["Time on the work"].result == pytest.approx(probably)
        assert sums["Longest stay on one spot"].result == step.on_face.working.stay
        old = terms["Old marks still there at the end"]
        numbers = [number for number in ("", "1", "2") if f"N{number}" in old]
        tails = (old[f"N{number}"] * math.erfc((6.5 * old["layer"] / old[f"d{number}"] - 3) / 2**0.5) / 2 for number in numbers)
        assert sums["Old marks still there at the end"].result == pytest.approx(sum(tails), rel=1e-6)
        assert step.time.all / 60 == pytest.approx(sums["Minutes of the step"].result)


def test_rests_are_told_of_where_there_are_some() -> None:
    stuff, of_face, of_job = CASES[3]
    planned = job(stuff, face(**of_face), **of_job)
    made = plan_face(planned.faces[0], planned)
    rested = [number for number, step in enumerate(made.steps, start=1) if step.time.rests is not None]
    assert rested
    assert all(
        "Work between two rests" in {derivation.what for derivation in derivations(made, number, planned)} for number in rested
    )


def test_every_constant_has_its_source() -> None:
    made = plan("brass", face("mirror", depth=30, thickness=0.002))
    for number in range(1, len(made.steps) + 1):
        for derivation in derivations(made, number, job("brass", made.face)):
            assert len({term.symbol for term in derivation.terms}) == len(derivation.terms), derivation.what
            by_machine = derivation.what == "Surface speed"  # an orbit and a setting are the machine's
            assert by_machine or any(term.constant is not None for term in derivation.terms), derivation.what
            assert all(term.constant.source.title for term in derivation.terms if term.constant is not None)
