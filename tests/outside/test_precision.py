"""Work to size against values from outside: ISO 286 (from memory), thermal growth, geometry, common practice of laps and lathes."""

import math

import pytest

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material, materials
from kelbrast.core.catalogue.tolerance_classes import GRADES, LETTERS, ToleranceClass, tolerance_class, tolerance_ranges
from kelbrast.core.errors import BadInput
from kelbrast.core.precision.belief import Belief, after_round, chance_past, drifted, longest
from kelbrast.core.precision.lap import cleaned_share, clipped, lap_rate
from kelbrast.core.precision.lathe import lathe_speeds
from kelbrast.core.precision.readings import at_gauge_temperature
from kelbrast.core.precision.tolerances import clearance, deviations
from kelbrast.core.units import to_si

UM, MM = 1e-6, 1e-3


# ISO 286-1 (from memory): the tolerance of a grade in units of i = 0.45 D^(1/3) + 0.001 D, um, D in mm.
UNITS_OF_GRADE = {5: 7.0, 6: 10.0, 7: 16.0, 8: 25.0, 9: 40.0, 10: 64.0}


class TestLimits:
    """ISO 286-2, from memory."""

    @pytest.mark.parametrize(
        ("written", "low", "high"),
        [
            ("H7", 0, 21), ("g6", -20, -7), ("h6", -13, 0), ("f7", -41, -20), ("k6", 2, 15), ("p6", 22, 35),
            ("H8", 0, 33), ("F8", 20, 53), ("G7", 7, 28), ("K7", -15, 6), ("K8", -23, 10), ("M7", -21, 0), ("N7", -28, -7),
            ("P7", -35, -14), ("P8", -55, -22), ("k8", 0, 33), ("n6", 15, 28), ("m6", 8, 21), ("JS7", -10.5, 10.5),
        ],
    )  # fmt: skip
    def test_at_25_mm(self, written: str, low: float, high: float) -> None:
        found = deviations(nominal=25 * MM, written=tolerance_class(written))
        assert (found.low / UM, found.high / UM) == (pytest.approx(low), pytest.approx(high))

    @pytest.mark.parametrize(
        ("nominal", "it6", "it7"),
        [(1, 6, 10), (3, 6, 10), (3.1, 8, 12), (14, 11, 18), (18, 11, 18), (18.1, 13, 21), (40, 16, 25), (250, 29, 46)],
    )
    def test_tolerances_by_size(self, nominal: float, it6: float, it7: float) -> None:
        for grade, width in ((6, it6), (7, it7)):
            found = deviations(nominal=nominal * MM, written=ToleranceClass("h", grade))
            assert (found.high - found.low) / UM == pytest.approx(width)

    @pytest.mark.parametrize(("written", "low", "high"), [("g6", -17, -6), ("H7", 0, 18), ("k6", 1, 12), ("N6", -20, -9)])
    def test_at_14_mm(self, written: str, low: float, high: float) -> None:
        found = deviations(nominal=14 * MM, written=tolerance_class(written))
        assert (found.low / UM, found.high / UM) == (pytest.approx(low), pytest.approx(high))

    def test_at_2_mm_holes_mirror_shafts(self) -> None:
        for letter in LETTERS:
            for grade in GRADES:
                hole = deviations(nominal=2 * MM, written=ToleranceClass(letter.upper(), grade))
                shaft = deviations(nominal=2 * MM, written=ToleranceClass(letter, grade))
                assert (hole.low, hole.high) == (pytest.approx(-shaft.high), pytest.approx(-shaft.low)) or letter == "k"

    def test_the_tables_agree_with_the_formula(self) -> None:
        for one in tolerance_ranges()[1:]:  # the first range, up to 3 mm, has values of its own
            for grade in GRADES:
                size = (one.over * one.to) ** 0.5
                formula = UNITS_OF_GRADE[grade] * (0.45 * size ** (1 / 3) + 0.001 * size)
                assert one.grades[grade] == pytest.approx(formula, abs=max(1.0, 0.13 * formula)), (one.over, grade)

    def test_a_sliding_fit(self) -> None:
        hole, shaft = (deviations(nominal=25 * MM, written=tolerance_class(one)) for one in ("H7", "g6"))
        assert [round(one / UM) for one in clearance(hole=hole, shaft=shaft)] == [7, 41]

    @pytest.mark.parametrize("written", ["", "H", "7", "Q7", "Hg7", "H9", "h4", "Js7"])
    def test_what_is_no_class_is_refused(self, written: str) -> None:
        with pytest.raises(BadInput):
            tolerance_class(written)


@pytest.mark.parametrize(
    ("key", "per_kelvin"),
    [
        ("mild-steel", 11.5),
        ("stainless-304", 17.3),
        ("cast-iron", 10.5),
        ("aluminium-wrought", 23),
        ("brass", 20.8),
        ("bronze", 18),
        ("copper", 16.7),
        ("titanium", 8.6),
        ("acrylic", 70),
    ],
)
def test_thermal_expansion_by_handbooks(key: str, per_kelvin: float) -> None:
    assert material(key).expansion / UM == pytest.approx(per_kelvin, rel=0.03)
    assert all(material.expansion > 0 for material in materials().values())


def test_a_shaft_of_25_mm_ten_kelvin_warmer_reads_three_micrometres_large() -> None:
    steel = material("mild-steel")
    cool = at_gauge_temperature(diameter=25 * MM, expansion=steel.expansion, warmer=10)
    assert (25 * MM - cool) / UM == pytest.approx(2.9, abs=0.05)
    assert at_gauge_temperature(diameter=25 * MM, expansion=steel.expansion, warmer=-10) > 25 * MM


class TestOvals:
    """Plane geometry, worked out by hand."""

    def test_an_oval_of_75_lapped_25_past_its_mean(self) -> None:
        assert cleaned_share(grown=25 * UM, oval=75 * UM) == pytest.approx(0.732, abs=5e-4)
        assert cleaned_share(grown=0, oval=75 * UM) == pytest.approx(0.5)
        assert cleaned_share(grown=37.5 * UM, oval=75 * UM) == pytest.approx(1.0)
        assert cleaned_share(grown=-40 * UM, oval=75 * UM) == 0.0

    @pytest.mark.parametrize(("c", "mean", "harmonic"), [(0, 0.318, 0.5), (0.5, 0.609, 0.196), (0.8, 0.827, 0.052)])
    def test_clipped_sections(self, c: float, mean: float, harmonic: float) -> None:
        assert clipped(c) == (pytest.approx(mean, abs=6e-4), pytest.approx(harmonic, abs=6e-4))


class TestTheFilter:
    """A filter written apart from this one, at three digits: limits 0 and 21 um, guard 1, S -20 +- 1, 2.5 um a minute, v .49, q .15."""

    BEFORE = drifted(Belief(-20 * UM, math.log(2.5 * UM / 60), UM**2, 0.0, 0.49), drift=0.15)

    def test_the_longest_work_and_its_chance(self) -> None:
        assert longest(self.BEFORE, limit=20 * UM, risk=0.01) / 60 == pytest.approx(3.028, abs=5e-4)
        assert chance_past(self.BEFORE, seconds=180, limit=20 * UM) == pytest.approx(0.00968, abs=5e-6)
        assert chance_past(self.BEFORE, seconds=120, limit=20 * UM) == pytest.approx(0.00185, abs=5e-6)
        assert (10.5 * UM - self.BEFORE.size) / self.BEFORE.rate / 60 == pytest.approx(12.2, abs=5e-4)

    @pytest.mark.parametrize(
        ("read", "size", "sd", "rate", "sd_log", "cov", "by_limit", "to_middle"),
        [
            (-12.5, -12.5, 0.984, 2.5, 0.182, 0.125, 7.196, 9.2),
            (-8.0, -8.075, 0.993, 3.95, 0.118, 0.082, 4.37, 4.703),
            (-20.5, -19.238, 0.87, 0.675, 0.5, 0.253, 16.776, 44.07),
        ],
    )
    def test_after_three_minutes(
        self, read: float, size: float, sd: float, rate: float, sd_log: float, cov: float, by_limit: float, to_middle: float
    ) -> None:
        found = after_round(self.BEFORE, seconds=180, read=read * UM, variance=UM**2)
        assert found.size / UM == pytest.approx(size, abs=6e-4)
        assert found.sd_size / UM == pytest.approx(sd, abs=6e-4)
        assert found.rate * 60 / UM == pytest.approx(rate, abs=6e-4)
        assert math.sqrt(found.var_log) == pytest.approx(sd_log, abs=6e-4)
        assert found.cov / UM == pytest.approx(cov, abs=6e-4)
        again = drifted(found, drift=0.15)
        assert longest(again, limit=20 * UM, risk=0.01) / 60 == pytest.approx(by_limit, rel=1e-3)
        assert (10.5 * UM - found.size) / found.rate / 60 == pytest.approx(to_middle, rel=1e-3)

    def test_an_oval_of_40_takes_less_time_where_the_lap_touches_little(self) -> None:
        strips = 20_000
        shares = [cleaned_share(grown=(-20 + 40 * (at + 0.5) / strips) * UM, oval=40 * UM) for at in range(strips)]
        minutes = [sum(shares[: round(strips * grown / 40)]) * 40 / strips / 2.5 for grown in (5, 40)]
        assert minutes == [pytest.approx(0.304, abs=1e-3), pytest.approx(8.0, abs=1e-3)]


class TestCommonPractice:
    """Rates of laps within a factor of 1.5, and speeds in the lathe."""

    def test_an_f400_lap_on_a_cast_iron_bore(self) -> None:
        rate = lap_rate(grain=parse_grade("F400").grain, speed=0.45, hardness=material("cast-iron").hardness)
        assert 25 / 1.5 <= rate * 600 / UM <= 25 * 1.5

    def test_an_f1200_lap_on_a_hardened_shaft(self) -> None:
        rate = lap_rate(grain=parse_grade("F1200").grain, speed=0.45, hardness=material("tool-steel-hardened").hardness)
        assert 2.5 / 1.5 <= rate * 600 / UM <= 5 * 1.5
        assert 2.5 / 1.5 <= rate * 900 / UM <= 5 * 1.5

    def test_an_inch_of_steel_in_the_lathe(self) -> None:
        found = lathe_speeds(diameter=25.4 * MM, cutting=to_si(80, "ft/min"), ferrous=True)
        rev = [round(60 * one) for one in (found.rough, found.rough_exact, *found.file)]
        assert rev == [320, 306, 1280, 1600]
        assert not found.capped
        capped = lathe_speeds(diameter=25.4 * MM, cutting=to_si(80, "ft/min"), ferrous=True, most=1500 / 60)
        assert [round(60 * one) for one in (*capped.file, capped.polish)] == [1280, 1500, 1500]
        assert capped.capped
        brass = lathe_speeds(diameter=25.4 * MM, cutting=to_si(200, "ft/min"), ferrous=False)
        assert [round(60 * one) for one in brass.file] == [1600, 2400]
