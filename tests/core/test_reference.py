"""The reference files hold together: every key resolves, values stay in physical bounds."""

from importlib.resources import files
from pathlib import Path

import pytest

from kelbrast.core.catalogue.finishes import finishes
from kelbrast.core.catalogue.machines import machines
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.catalogue.tools import carriers, speed_bands, tools
from kelbrast.core.errors import BadInput, NotFound, ReadError
from kelbrast.core.reference.loader import constant, sources
from kelbrast.core.surface.shapes import SHAPES, shape_area
from kelbrast.core.units import SCALE, from_si, to_si

ROOT = Path(__file__).parents[2]


@pytest.mark.text
def test_every_source_is_used() -> None:
    reference = files("kelbrast.core.reference")
    texts = [path.read_text() for folder in ("records", "tables") for path in reference.joinpath(folder).iterdir()]
    texts += [path.read_text() for path in (ROOT / "src" / "kelbrast" / "core").rglob("*.py")]  # models and rules cite them too
    for source in sources().values():
        used = source.id in ("stainless-grit", "mould-finishes")  # what the fit is held against, in tests/outside
        assert used or any(source.id in text for text in texts), f"{source.id} is never cited"


def test_a_constant_is_one_number() -> None:
    assert constant("habit.double-up.jump").value == 2.3
    with pytest.raises(ReadError):
        constant("scratch")


def test_materials_are_plausible() -> None:
    assert len(materials()) >= 16
    for material in materials().values():
        assert 0.05e9 < material.hardness < 15e9
        assert 0.1 < material.conductivity < 450
        assert 900 < material.density < 20000
        assert 100 < material.specific_heat < 1800
        assert 273.15 + 40 < material.limit < 273.15 + 400


def test_the_rack_covers_every_carrier() -> None:
    assert len(tools()) >= 70
    kinds = {tool.carrier.kind for tool in tools().values()}
    assert kinds >= {
        "belt", "disc", "flap wheel", "non-woven", "rubber-bonded", "radial bristle", "paper", "lap", "felt",
        "sewn cotton", "sisal", "loose cotton", "wool pad", "foam pad", "stone",
    }  # fmt: skip
    for one in tools().values():
        assert 0.5 <= one.carrier.cutting.hold <= 2.5  # rolling grain dents deeper than held grain scratches
        assert one.carrier.running.light_force < one.carrier.running.force
        assert 0.1e-6 < one.grain < 1e-3


def test_soft_wheels_take_no_more_than_they_may() -> None:
    # practice: of the order of ten micrometres on sisal, five on sewn, two on loose, whatever the depth of single marks
    limits = {"sisal": 10, "felt": 8, "sewn": 5, "loose": 2, "flannel": 0.6, "wool": 1.4, "foam-pad": 1.4, "cloth": 1.2}
    for name, most in limits.items():
        cutting = carriers()[name].cutting
        assert cutting.takes_in_all == pytest.approx(most * 1e-6)
        assert not cutting.levels


def test_a_softly_held_grain_reaches_half_its_size() -> None:
    assert tools()["bristle-1um"].reaches_depth == pytest.approx(0.5e-6)
    assert tools()["nonwoven-wheel-coarse"].reaches_depth == pytest.approx(12e-6)  # the carrier's own limit comes first
    assert tools()["paper-p80"].reaches_depth is None


def test_every_tool_has_a_machine_and_a_band() -> None:
    for tool in tools().values():
        drivers = [each for each in machines().values() if tool.carrier.mount in each.takes]
        assert drivers, tool.id
        turned = any(each.stroke is None and each.orbit is None for each in drivers)
        assert not turned or any(use == tool.carrier.running.band for use, _ in speed_bands()), tool.id


def test_finishes_have_bands_in_order() -> None:
    for finish in finishes().values():
        assert finish.no_finer_than or finish.ra_high
        assert (finish.ra_low or 0) < (finish.ra_high or 1)


def test_n_grades() -> None:  # ISO 1302 (from memory): N1 0.025, then doubling (12.5 and 25 rounded up to there), N12 50
    assert [finishes()[f"N{n}"].ra_high for n in (1, 5, 12)] == pytest.approx([0.025e-6, 0.4e-6, 50e-6])


@pytest.mark.parametrize("unit", [*SCALE, "C"])
def test_units_come_back(unit: str) -> None:
    assert from_si(to_si(12.5, unit), unit) == pytest.approx(12.5)


def test_an_unknown_unit_is_refused() -> None:
    with pytest.raises(BadInput, match="furlong"):
        to_si(1, "furlong")


def test_shapes() -> None:  # hand calculation
    measures = {"diameter": 0.2, "length": 0.1, "inside_diameter": 0.1, "width": 0.05, "height": 0.03}
    areas = {kind: shape_area(kind, {need: measures[need] for need in shape.needs}) for kind, shape in SHAPES.items()}
    assert areas == pytest.approx(
        {"plate": 0.005, "disc": 0.0314159, "ring": 0.0235619, "cylinder": 0.0628319, "bore": 0.0628319,
         "tube": 0.0942478, "dome": 0.0342434}, rel=1e-5,
    )  # fmt: skip


@pytest.mark.parametrize(
    ("kind", "measures", "said"),
    [
        ("cube", {}, "shape.kind"),
        ("plate", {"length": 1.0}, "width_mm: is needed"),
        ("disc", {"diameter": 1.0, "width": 1.0}, "is not a measure"),
        ("disc", {"diameter": 0.0}, "above 0"),
        ("ring", {"diameter": 0.1, "inside_diameter": 0.1}, "inside_diameter_mm: must be below the outside diameter"),
    ],
)
def test_bad_shapes_name_the_measure(kind: str, measures: dict[str, float], said: str) -> None:
    with pytest.raises(BadInput, match=said):
        shape_area(kind, measures)


def test_what_is_not_there_has_neighbours() -> None:
    with pytest.raises(NotFound, match="did you mean copper"):
        from kelbrast.core.catalogue.materials import material

        material("coper")
