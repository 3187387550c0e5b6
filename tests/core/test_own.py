"""A shop's own things become rows of the reference: by its laws, within its bounds, and for that shop alone."""

from dataclasses import replace
from datetime import date

import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.hardness import indentation_pressure
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.catalogue.materials import families, material, materials
from kelbrast.core.catalogue.own import OwnEntry, own_rows
from kelbrast.core.catalogue.tools import carriers, tool, tools
from kelbrast.core.errors import BadInput, NotFound, OutsideValidity
from kelbrast.core.job import Job
from kelbrast.core.planning.questions.derivation import derivations
from kelbrast.core.planning.whole.plan import face_in_plan, plan_job
from kelbrast.core.reference.own_rows import NOTHING, carrying, in_use, using
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.tooling.at_hand import choose_rack

BELT = OwnEntry(
    "own-belt",
    "tool",
    "Ceramic belt",
    "belt",
    "Mara",
    date(2026, 3, 12),
    grades=("P80", "30um"),
    cuts=2.0,
    lasts=3.0,
    marks=1.1,
)
PASTE = OwnEntry("own-paste", "compound", "home paste", "tripoli", grain="6um", cuts=1.5)
BRONZE = OwnEntry("own-bronze", "material", "Manganese bronze", "bronze", hardness=(180, "HB"), density=8100, coarsest="P80")
GRINDER = OwnEntry("own-grinder", "machine", "Old grinder", "belt-grinder", speeds=(1400, 700))
RAIL = OwnEntry("own-rail", "finish", "Like the old rail", "satin", measured_ra=0.4, lay="one-way")


def test_what_differs_is_as_said_and_everything_else_as_of_what_it_is_like() -> None:
    before, coarse = material("bronze"), tool("belt-p80")
    with using(own_rows([BELT, PASTE, BRONZE])):
        mine, bronze = tool("own-belt-p80"), material("own-bronze")
        fine = tool("own-belt-30um")
        charged = tool("sewn-own-paste")
        assert {family.id for family in families().values() if "own-paste" in family.bars} == {
            family.id for family in families().values() if "tripoli" in family.bars
        }
    assert mine.wear == pytest.approx(2 * coarse.wear)
    assert mine.carrier.stock.life == pytest.approx(3 * coarse.carrier.stock.life)
    assert mine.carrier.cutting.hold == pytest.approx(1.1 * coarse.carrier.cutting.hold)
    assert (mine.grain, fine.grain, mine.carrier.running) == (coarse.grain, pytest.approx(30e-6), coarse.carrier.running)
    assert (mine.label, charged.label) == ("P80 ceramic belt", "Home paste, sewn cotton wheel")
    assert charged.grain == pytest.approx(6e-6)
    assert charged.wear == pytest.approx(1.5 * tool("sewn-tripoli").wear)
    assert bronze.hardness == pytest.approx(indentation_pressure(180, "HB"))
    assert (bronze.conductivity, bronze.family, bronze.density) == (before.conductivity, before.family, 8100)
    cited = dict(bronze.figures)["hardness"]
    assert (cited.source.title, cited.source.kind, dict(bronze.figures)["limit"].source.id) == (
        "This shop",
        "own",
        dict(before.figures)["limit"].source.id,
    )


def test_nobody_else_sees_them_and_nothing_of_the_reference_is_replaced() -> None:
    impostor = OwnEntry("belt", "tool", "Another belt", "felt")
    with using(own_rows([BELT, BRONZE])):
        elsewhere = carrying(lambda: "own-bronze" in materials())
        assert len(tools()) == 182
    assert (in_use() is NOTHING, elsewhere(), len(tools())) == (True, True, 180)
    with pytest.raises(NotFound):
        tool("own-belt-p80")
    with using(own_rows([impostor])):
        assert carriers()["belt"].label == "Belt on the contact wheel"


def test_own_things_go_together_as_what_they_are_like_does() -> None:
    wheel = OwnEntry("own-wheel", "tool", "Denim wheel", "sewn")
    plastic, pad = (
        OwnEntry("own-plastic", "material", "Own plastic", "acetal"),
        OwnEntry("own-pad", "tool", "Own pad", "nonwoven-pad"),
    )
    with using(own_rows([wheel, PASTE, plastic, pad])):
        assert tool("own-wheel-own-paste").label == "Home paste, denim wheel"
        assert tool("own-wheel-tripoli").carrier.like == "sewn"
        kept_off = {carrier.id for carrier in carriers().values() if "own-plastic" in carrier.not_on}
        assert kept_off == {carrier.id for carrier in carriers().values() if "acetal" in carrier.not_on}
        assert "own-pad" in kept_off


def test_it_cuts_like_one_grit_and_leaves_like_another() -> None:
    belt = OwnEntry("own-mixed", "tool", "Mixed belt", "belt", grades=("P180",), cuts_like="P100")
    with using(own_rows([belt])):
        mixed = tool("own-mixed-p180")
    assert mixed.grain == tool("belt-p180").grain
    assert tool("belt-p120").wear < mixed.wear < tool("belt-p80").wear


def test_machines_and_finishes() -> None:
    with using(own_rows([GRINDER, RAIL])):
        grinder, rail = machine("own-grinder"), finish("own-rail")
    assert [round(60 * speed) for speed in grinder.settings] == [700, 1400]
    assert (grinder.low, grinder.takes) == (None, machine("belt-grinder").takes)
    assert (rail.ra_low, rail.ra_high, rail.lay) == (pytest.approx(0.32e-6), pytest.approx(0.5e-6), "one-way")


def test_what_is_retired_stays_known_and_is_planned_with_no_more() -> None:
    with using(own_rows([replace(BELT, retired=True), replace(PASTE, retired=True)])):
        assert tool("own-belt-p80").label == "P80 ceramic belt"
        assert not {one.id for one in choose_rack(None)[0] if "own" in one.id}


def test_a_quicker_belt_is_chosen_and_saves_and_its_sums_say_who_says_so() -> None:
    face = Face("plate", area=0.03, found=Found("scratches", 60e-6, 90e-6), want=finish("bright"))
    job = Job(title="plate", faces=(face,), material=material("bronze"))
    usual = plan_job(job).faces[0]
    with using(own_rows([replace(BELT, grades=("P80", "P120", "P240"), cuts=3.0)])):
        quick = plan_job(job).faces[0]
        first = next(at for at, step in enumerate(quick.steps, start=1) if step.tool.id.startswith("own-belt"))
        sums = {one.what: one for one in derivations(face_in_plan(face, job), first, job)}
    assert quick.seconds < 0.98 * usual.seconds
    q, k0, g, g0, p = (term.value for term in sums["Wear coefficient"].terms)
    assert sums["Wear coefficient"].result == pytest.approx(q * k0 * (g / g0) ** p)
    assert sums["Wear coefficient"].terms[0].constant.locator == "12 March 2026, Mara"


@pytest.mark.parametrize(
    ("entry", "field"),
    [
        (replace(BELT, like="bilt"), "like"),
        (replace(BELT, name="belt on the contact Wheel"), "name"),
        (replace(BELT, grades=("P80", "rough")), "grades[1]"),
        (replace(BELT, cuts_like="P100"), "cuts_like"),
        (replace(BELT, like="loose"), "grades"),
        (OwnEntry("own-a", "tool", "Hand pad", "paper", diameter=100), "diameter"),
        (replace(PASTE, grain="pasty"), "grain"),
        (replace(BRONZE, hardness=(20, "HB")), "hardness"),
        (replace(GRINDER, speed_range=(900, 800), speeds=()), "speed_range"),
        (replace(GRINDER, speed_range=(800, 900)), "speeds"),
        (replace(RAIL, ra=(0.5, 0.4), measured_ra=None), "ra"),
        (replace(RAIL, ra=(None, None), measured_ra=None), "ra"),
        (replace(RAIL, ra=(None, 0.4)), "measured_ra"),
        (replace(RAIL, lay="crooked"), "lay"),
    ],
)
def test_what_cannot_be_used_is_said_by_its_key(entry: OwnEntry, field: str) -> None:
    with pytest.raises(BadInput) as bad:
        own_rows([PASTE, entry])
    assert f"entries[1].{field}" in {fault.field for fault in bad.value.faults}


def test_hardness_is_converted_as_published_and_not_beyond() -> None:
    # ASTM E140, tables 1 and 2; ISO 18265, table A.1, between rows of theirs
    for value, scale, vickers in ((62, "HRC", 746), (93, "HRB", 200), (350, "HB", 368)):
        assert indentation_pressure(value, scale) == pytest.approx(vickers * 9.80665e6, rel=0.02)
    assert indentation_pressure(85, "Shore D") == pytest.approx(material("acrylic").hardness, rel=0.2)
    for value, scale in ((70, "HRC"), (10, "HRB"), (650, "HB"), (40, "Shore D"), (20_000, "HV"), (5, "Mohs")):
        with pytest.raises(OutsideValidity):
            indentation_pressure(value, scale)
