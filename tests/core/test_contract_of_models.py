"""Every public function of the models says its equation, its symbols with units, its range, its source and an example; and keeps them."""

import ast
import importlib
import math
import re
import sys
from collections.abc import Callable, Iterator
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from kelbrast.core.catalogue.finishes import finish
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tolerance_classes import ToleranceClass
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.learning.factors import Learnt, Observation
from kelbrast.core.learning.trial import LampLook, TrialSquare, Tried
from kelbrast.core.metrology.profile import Profile
from kelbrast.core.precision.belief import Belief
from kelbrast.core.precision.face import SizingStep
from kelbrast.core.precision.pair import Mate
from kelbrast.core.precision.state import SizingTool, WorkRound, follow
from kelbrast.core.precision.stop_sheet import SizingGrade
from kelbrast.core.precision.tolerances import Deviations
from kelbrast.core.process.heat import Lump
from kelbrast.core.process.spread import Moments, Stretch
from kelbrast.core.reference.loader import sources
from kelbrast.core.simulation.light import Lamp, Look
from kelbrast.core.simulation.marks import Marks
from kelbrast.core.simulation.patch import FoundPatch, Patch, Working
from kelbrast.core.simulation.sequence import RouteStep
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from kelbrast.core.surface.sized import Gauge, Reading, RoundPart, Sized, SizeLimits
from kelbrast.core.vision.agreement import CheckTurnedOut
from kelbrast.core.vision.lay import LayFound
from kelbrast.core.vision.light_check import CheckAsked
from kelbrast.core.vision.line_segments import LineShares
from kelbrast.core.vision.photo_file import Photo
from kelbrast.core.vision.score import ScoredPair

CORE = Path(__file__).parents[2] / "src" / "kelbrast" / "core"
PACKAGES = ("process", "metrology", "simulation", "vision", "learning", "precision")
PUT_TOGETHER = ("precision.advice",)  # of models that say all this themselves
UNITS = r"\b(m|m2|m3|s|N|Pa|W|K|kg|rad|rev/s|m/s|1/K|W/K|W/mK|W/m2|W/m2K|J/K|J/kgK|m2/s|1/m|dimensionless|flags)\b"


def functions() -> Iterator[tuple[str, ast.FunctionDef]]:
    for package in PACKAGES:
        for path in sorted((CORE / package).glob("*.py")):
            for node in ast.parse(path.read_text(encoding="utf-8")).body:
                named = isinstance(node, ast.FunctionDef) and not node.name.startswith("_")
                if named and f"{package}.{path.stem}" not in PUT_TOGETHER:
                    yield f"{package}.{path.stem}.{node.name}", node


ALL = dict(functions())


def parts(node: ast.FunctionDef) -> dict[str, str]:
    """The sections of a docstring by their heads."""
    text = ast.get_docstring(node) or ""
    found = re.split(r"^(Equation|Valid|Args|Raises|Source):", text, flags=re.MULTILINE)
    return {"Summary": found[0], **dict(zip(found[1::2], found[2::2], strict=True))}


@pytest.mark.text
@pytest.mark.parametrize("name", ALL)
def test_it_says_everything(name: str) -> None:
    node = ALL[name]
    said = parts(node)
    args = [one.arg for one in (*node.args.args, *node.args.kwonlyargs)]
    assert set(said) == {"Summary", "Equation", "Valid", "Raises", "Source"} | ({"Args"} if args else set())
    assert re.search(r"\(.+\)", said["Equation"]), "the unit of the result in parentheses"
    keys = said["Source"].split("\n\n")[0].strip().rstrip(".")
    assert all(key.strip() in sources() for key in keys.split(",")), keys
    assert ">>> " in said["Source"], "an example that runs"
    for arg in args:
        line = re.search(rf"^\s+{arg}: (.+)$", said["Args"], re.MULTILINE)
        assert line, f"{arg} is not told of"
    numbers = [
        one
        for one in (*node.args.args, *node.args.kwonlyargs)
        if re.search("float|Reals|int", ast.unparse(one.annotation or ast.Constant("")))
        and "bool" not in ast.unparse(one.annotation or ast.Constant(""))
    ]
    for number in numbers:
        entry = re.search(rf"^\s+{number.arg}: (.+(?:\n\s{{8,}}.+)*)$", said["Args"], re.MULTILINE)
        assert entry, number.arg
        assert re.search(UNITS, entry[1]), f"{number.arg} has no unit"


X = np.arange(20_000) * 1e-6
WAVE = 1e-6 * np.sin(2 * np.pi * X / 0.05e-3)
ROUGH = np.random.default_rng(1).standard_normal(4000) * 1e-6
MAP = np.random.default_rng(2).standard_normal((16, 16)) * 1e-6
FIELD_OF_NOISE = np.random.default_rng(4).standard_normal((128, 128))
PIECE_OF_NOISE = np.random.default_rng(6).standard_normal((448, 448))
GREY = np.random.default_rng(5).integers(60, 200, (460, 470)).astype(np.uint8)
SEEN_AT = CheckAsked(1e-5, 0.3, 1.2, 2e-5)
CHANCE = np.random.default_rng(3)
GAUGE = Gauge(2e-6, 1e-6)
TRIAL = TrialSquare(rate=0.1e-6, life=600.0, clears=20e-6, halves=8e-6, ra=1e-6)
LAP = SizingTool("F400", 4e-8, 0.7)
BUSH = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3))
READ = tuple(Reading(19.99e-3, z, phi) for z in (-0.012, 0.0, 0.012) for phi in (0.0, 0.8, 1.6, 2.4))
MEASURED = WorkRound(0.0, LAP, READ)
STATE = follow(BUSH, [MEASURED], GAUGE)
SHAFT_STATE = follow(RoundPart("shaft", 40e-3, SizeLimits(19.98e-3, 19.993e-3)), [MEASURED], GAUGE)
ROUND = Face("bore", 25e-4, Found("lay", 3e-6, 3e-6), finish("satin"))
WAY = [SizingStep("bore-lap-f400", 6e-6, 240.0), SizingStep("bore-lap-f1200", 2e-6, 300.0)]
KNOWN = Belief(-20e-6, math.log(4e-8), 1e-12, 0.0, 0.49)

# What each function is called with when all is well, and for every number in it what lies outside its range.
CALLS: dict[str, tuple[dict[str, Any], dict[str, tuple[Any, ...]]]] = {
    "process.blend.dish_radius": ({"depth": 1e-3, "slope": 0.01}, {"depth": (-1.0,), "slope": (0.0, -1.0)}),
    "process.blend.dug_area": ({"count": 2, "length": 0.1, "width": 0.01, "rim": np.array([0.0, 0.01])}, {"count": (0,), "length": (0.0,), "width": (0.0,), "rim": (np.array(-1.0),)}),
    "process.blend.overlap": ({"depth": 1e-4, "marks": np.array([1e-5])}, {"depth": (-1.0,), "marks": (np.array(0.0),)}),
    "process.blend.rim_width": ({"depth": 1e-4, "slope": 0.01}, {"depth": (-1.0,), "slope": (0.0,)}),
    "process.blend.zone_area": ({"count": 2, "length": 0.1, "width": 0.01, "margin": np.array([0.0, 0.01])}, {"count": (0,), "length": (0.0,), "width": (0.0,), "margin": (np.array(-1.0),)}),
    "process.clearance.count_of_marks": ({"area": 0.01, "grain": 1e-5}, {"area": (0.0,), "grain": (0.0,)}),
    "process.clearance.area_factor": ({"area": 0.01, "grain": 1e-5}, {"area": (0.0,), "grain": (-1.0,)}),
    "process.clearance.marks_left": ({"area": 0.01, "grain": 1e-5, "depth": 1e-6, "layer": 0.0}, {"area": (0.0,), "grain": (0.0,), "depth": (0.0,), "layer": (-1e-9,)}),
    "process.clearance.clearance": ({"area": 0.01, "grain": 1e-5, "deformed": 0.0}, {"area": (0.0,), "grain": (0.0,), "deformed": (-0.1,)}),
    "process.rework.chance_outside": ({"ra": np.array([1e-7]), "low": 0.0, "high": 2e-7}, {"ra": (np.array([0.0]),), "low": (-1e-9,), "high": (0.0,)}),
    "process.removal.contact_kept": ({"times": 1.0}, {"times": (-0.1, math.nan)}),
    "process.rework.expected_repeats": ({"excess": np.array([0.0, 2.0])}, {"excess": (np.array([-1.0]), np.array([np.nan]))}),
    "process.rework.chance_of_repeat": ({"repeats": 1.0}, {"repeats": (-0.1, math.nan)}),
    "process.removal.change_after": ({"life": 100.0, "change_cost": 30.0}, {"life": (0.0, math.inf), "change_cost": (0.0, math.inf, 1e15)}),
    "process.removal.cutting": ({"fresh": 10.0, "life": 100.0, "change_after": 90.0}, {"fresh": (-1.0,), "life": (0.0, -1.0), "change_after": (0.0,)}),
    "process.removal.pullout_life_factor": ({"grain": 8e-5, "depth": 1e-4}, {"grain": (0.0,), "depth": (0.0,)}),
    "process.removal.share_done": ({"seconds": 10.0, "fresh": 20.0, "life": 100.0, "change_after": 90.0}, {"seconds": (-1.0,), "life": (0.0,), "change_after": (0.0,)}),
    "process.removal.fresh_in": ({"seconds": 10.0, "life": 100.0, "change_after": 90.0}, {"seconds": (-1.0,), "life": (0.0,), "change_after": (0.0,)}),
    "process.removal.break_volume": ({"leg": 3e-4, "length": 0.4}, {"leg": (-1e-9,), "length": (0.0,)}),
    "process.removal.radius_volume": ({"radius": 1e-3, "length": 0.4}, {"radius": (-1e-9,), "length": (0.0,)}),
    "process.heat.friction_flux": ({"friction": 0.4, "force": 5.0, "speed": 12.0, "patch": 1e-3}, {"friction": (0.0,), "force": (0.0,), "speed": (0.0,), "patch": (0.0,)}),
    "process.heat.slab_rise": ({"flux": 1e4, "seconds": 1.0, "thickness": 0.01, "conductivity": 16.0, "diffusivity": 4e-6}, {"flux": (-1.0,), "seconds": (-1.0,), "thickness": (0.0,), "conductivity": (0.0,), "diffusivity": (0.0,)}),
    "process.heat.longest_stay": ({"flux": 1e4, "thickness": 0.01, "material": material("brass"), "limit": 350.0}, {"flux": (0.0,), "thickness": (0.0,), "limit": (250.0,)}),
    "process.scratch.marks_said": ({"expected": 4.0, "share": 0.5}, {"expected": (-1.0,), "share": (-0.1, 1.1)}),
    "process.removal.removal_rate": ({"wear": 0.045, "contact": 0.8, "force": 25.0, "speed": 0.6, "hardness": 1.9e9}, {"wear": (0.0,), "contact": (0.0, 1.1), "force": (0.0,), "speed": (0.0,), "hardness": (0.0,)}),
    "process.heat.work_until_hot": ({"lump": Lump(190.0, 0.03), "power": 67.0, "loss": 15.0, "allowed": 28.0}, {"lump": (Lump(0.0, 0.03), Lump(190.0, 0.0)), "power": (0.0,), "loss": (0.0,), "allowed": (0.0,)}),
    "process.heat.rest": ({"lump": Lump(190.0, 0.03), "loss": 15.0, "left": 0.25}, {"lump": (Lump(0.0, 0.03), Lump(190.0, 0.0)), "loss": (0.0,), "left": (0.0, 1.1)}),
    "process.scratch.roughness_left": ({"grain": 8e-5, "hold": 1.0, "hardness": 1.9e9}, {"grain": (0.0,), "hold": (0.0,), "hardness": (0.0,)}),
    "process.scratch.grain_of_marks": ({"depth": 3e-6, "hardness": 1.9e9, "hold": 1.0}, {"depth": (0.0,), "hardness": (0.0,), "hold": (0.0,)}),
    "process.scratch.depth_of_marks": ({"ra": 1e-6}, {"ra": (-1e-9,)}),
    "process.speed.surface_speed": ({"diameter": 0.2, "spindle": 30.0}, {"diameter": (0.0,), "spindle": (-1.0,)}),
    "process.speed.spindle_speed": ({"diameter": 0.2, "surface": 30.0}, {"diameter": (0.0,), "surface": (-1.0,)}),
    "process.speed.to_set": ({"spindle": 30.0}, {"spindle": (-1.0,)}),
    "process.speed.marked_now": ({"marked": 48.0, "new": 0.25, "now": 0.2}, {"marked": (0.0,), "new": (0.0,), "now": (0.0,)}),
    "process.speed.choose_setting": ({"machine": machine("bench-buffer"), "diameter": 0.2, "band": (25.0, 40.0), "marked_limit": 48.0}, {"diameter": (0.0,), "band": ((0.0, 40.0),), "marked_limit": (0.0,)}),
    "process.spread.moments": ({"stretches": [Stretch(60.0, {"felt": 0.2}, 0.1)]}, {"stretches": ([Stretch(-1.0)], [Stretch(1.0, {"felt": -0.1})], [Stretch(1.0, own=-0.1)], [Stretch(1.0, times_variance=-1.0)], [Stretch(math.nan)])}),
    "process.spread.stays_below": ({"found": Moments(100.0, 900.0), "share": 0.9}, {"found": (Moments(0.0, 1.0), Moments(1.0, -1.0), Moments(math.nan, 1.0)), "share": (0.0, 1.0)}),
    "process.vibration.exposure_of": ({"points": 150.0}, {"points": (-1.0,)}),
    "process.vibration.vibration_points": ({"vibration": 5.0, "seconds": 600.0}, {"vibration": (-1.0,), "seconds": (-1.0,)}),
    "metrology.parameters.accepted": ({"values": [0.3, 0.4], "limit": 0.4, "rule": "16%", "upper": True}, {"values": ([], [math.nan]), "limit": ()}),
    "metrology.areal.areal": ({"z": MAP, "spacing": (1e-6, 1e-6)}, {"z": (MAP[:7], MAP * math.nan, MAP * 0), "spacing": ((0.0, 1e-6), (1e-6, -1.0))}),
    "metrology.areal.mean_height": ({"z": MAP}, {"z": (MAP[:7], MAP * math.nan)}),
    "metrology.areal.without_form": ({"z": MAP, "degree": 1}, {"z": (MAP[:, :7], MAP * math.nan), "degree": (3, -1)}),
    "metrology.areal.finer_than": ({"z": MAP, "spacing": (1e-6, 1e-6), "cut_off": 5e-6}, {"z": (MAP[:7], MAP * math.nan), "spacing": ((0.0, 1e-6), (1e-6, 0.0)), "cut_off": (0.0,)}),
    "metrology.cutoff.cut_offs": ({}, {}),
    "metrology.cutoff.for_spacing": ({"rsm": 1e-4}, {"rsm": (0.0, -1.0)}),
    "metrology.cutoff.chosen": ({"profile": Profile(WAVE, 1e-6)}, {"profile": (Profile(WAVE[:5], 1e-6), Profile(WAVE * math.nan, 1e-6))}),
    "metrology.evaluate.evaluate": ({"profile": Profile(WAVE, 1e-6), "degree": 1, "cut_off": 0.8e-3, "noise": 2.5e-6, "length": 10e-3}, {"profile": (Profile(WAVE[:100], 1e-6), Profile(WAVE * math.nan, 1e-6)), "degree": (-1, 13), "cut_off": (0.0, 1.0), "noise": (0.0, 1e-3), "length": (0.0, 1.0)}),
    "metrology.profile.low_pass": ({"z": ROUGH, "spacing": 1e-6, "cut_off": 1e-4, "axis": 0}, {"z": (ROUGH * math.nan,), "spacing": (0.0,), "cut_off": (0.0,)}),
    "metrology.parameters.curve": ({"z": ROUGH, "points": 20}, {"z": (ROUGH[:1], ROUGH * math.nan), "points": (1,)}),
    "metrology.parameters.material_ratio": ({"z": ROUGH}, {"z": (ROUGH[:99], ROUGH * math.nan, ROUGH * 0)}),
    "metrology.optics.reflected_share": ({"rq": 1e-8, "wavelength": 5e-7, "angle": 1.0}, {"rq": (-1e-9,), "wavelength": (0.0,), "angle": (-0.1, math.pi / 2)}),
    "metrology.parameters.heights": ({"z": ROUGH, "spacing": 1e-6, "sections": 5}, {"z": (ROUGH[:39], ROUGH * math.nan, ROUGH * 0), "spacing": (0.0,), "sections": (0,)}),
    "metrology.parameters.mean_width": ({"z": ROUGH, "spacing": 1e-6, "height": 0.0, "least": 0.0}, {"z": (ROUGH * math.nan,), "spacing": (0.0,), "height": (-1.0,), "least": (-1.0,)}),
    "metrology.cutoff.period_of": ({"z": ROUGH, "spacing": 1e-6}, {"z": (ROUGH[:15], ROUGH * math.nan), "spacing": (0.0,)}),
    "metrology.profile.resampled": ({"x": X[:100], "z": WAVE[:100]}, {"x": (X[:7], X[:99], X[:100][::-1], X[:100] * math.nan), "z": (WAVE[:100] * math.nan,)}),
    "metrology.profile.central": ({"profile": Profile(WAVE, 1e-6), "length": 1e-3}, {"length": (0.0, 1e-6, 1.0)}),
    "metrology.profile.without_form": ({"profile": Profile(WAVE, 1e-6), "degree": 2}, {"profile": (Profile(WAVE * math.nan, 1e-6),), "degree": (-1, 13)}),
    "metrology.profile.roughness_profile": ({"profile": Profile(WAVE, 1e-6), "cut_off": 0.8e-3, "noise": 2.5e-6}, {"profile": (Profile(WAVE * math.nan, 1e-6),), "cut_off": (0.0, 1.0), "noise": (0.0, 1e-3)}),
    "simulation.light.look_of": ({"material": material("brass")}, {}),
    "simulation.light.lit": ({"patch": Patch(MAP, 8e-6), "look": Look((0.9, 0.8, 0.5), 0.1), "lamp": Lamp(), "gain": 1.0}, {"lamp": (Lamp(height=-0.1), Lamp(height=4.0)), "gain": (0.0,)}),
    "simulation.light.reflected": ({"patch": Patch(MAP, 8e-6)}, {}),
    "simulation.light.outlined": ({"picture": np.zeros((2, 2, 3), dtype=np.uint8), "marks": np.zeros((2, 2), dtype=bool)}, {"marks": (np.zeros((2, 3), dtype=bool),)}),
    "simulation.light.told_apart": ({"one": np.zeros((9, 9, 3), dtype=np.uint8), "other": np.zeros((9, 9, 3), dtype=np.uint8)}, {"other": (np.zeros((9, 8, 3), dtype=np.uint8),)}),
    "simulation.marks.marks_as_deep": ({"depth": 3e-6, "hardness": 1e9}, {"depth": (0.0,), "hardness": (0.0,)}),
    "simulation.marks.floors_of": ({"depth": 3e-6, "count": 3, "chance": CHANCE}, {"depth": (0.0,), "count": (-1,)}),
    "simulation.marks.draw": ({"marks": Marks(3e-6, 3e-5), "size": (20, 20), "spacing": 8e-6, "chance": CHANCE}, {"marks": (Marks(0.0, 3e-5), Marks(3e-6, 0.0)), "size": ((0, 20),), "spacing": (0.0,)}),
    "simulation.patch.found_patch": ({"found": FoundPatch("nick", 3e-6, 3e-5), "size": (20, 20), "spacing": 8e-6, "seed": 1}, {"found": (FoundPatch("nick", 0.0, 3e-5), FoundPatch("nick", 3e-6, 0.0)), "size": ((7, 20),), "spacing": (0.0,)}),
    "simulation.patch.worked": ({"patch": Patch(np.zeros((16, 16)), 8e-6), "step": Working(1e-5, Marks(2e-6, 3e-5))}, {"step": (Working(-1e-9, Marks(2e-6, 3e-5)), Working(1e-5, Marks(2e-6, 3e-5), share=-0.1), Working(1e-5, Marks(2e-6, 3e-5), share=1.6))}),
    "simulation.patch.old_marks": ({"before": Patch(MAP, 8e-6), "after": Patch(MAP, 8e-6)}, {"after": (Patch(MAP[:8], 8e-6),)}),
    "simulation.sequence.workings": ({"steps": [RouteStep(tool("paper-p240"), 9e-6, 3e-6, 5e-5, "along")]}, {"steps": ([RouteStep(tool("paper-p240"), -9e-6, 3e-6, 5e-5, "along")],)}),
    "simulation.sequence.one_grade": ({"found": FoundPatch("lay", 9e-6, 8e-5), "own": Marks(3e-6, 3e-5), "area": 1e-6, "levels": True, "share": 1.0}, {"found": (FoundPatch("lay", 9e-6, 0.0),), "own": (Marks(0.0, 3e-5),), "area": (0.0,)}),
    "simulation.sequence.not_yet": ({"last": Working(2e-5, Marks(3e-6, 3e-5)), "likely": 1e-5}, {"last": (Working(0.0, Marks(3e-6, 3e-5)),), "likely": (0.0,)}),
    "vision.agreement.rightness": ({"right": 3, "of": 4}, {"right": (-1, 5), "of": (-1,)}),
    "vision.agreement.agreement": ({"checks": [CheckTurnedOut(True, True, True)]}, {}),
    "vision.fields.contrast": ({"grey": GREY / 255}, {"grey": (GREY[:0] / 255, GREY * 1.0, GREY * -1.0)}),
    "vision.fields.fields_of": ({"grey": GREY, "most": 4}, {"grey": (GREY[:447],), "most": (0,)}),
    "vision.fields.clipped": ({"values": MAP, "sigmas": 3.0}, {"values": (MAP[:0],)}),
    "vision.fields.robust_deviation": ({"values": MAP}, {"values": (MAP[:0],)}),
    "vision.spectra.spectra": ({"contrast": FIELD_OF_NOISE}, {"contrast": (FIELD_OF_NOISE[:127],)}),
    "vision.spectra.lines_of": ({"fy": MAP, "fx": MAP}, {}),
    "vision.spectra.turned": ({"lines": MAP, "lay": 0.1}, {}),
    "vision.photo_file.measured_file": ({"grey": GREY}, {"grey": (GREY[:63],)}),
    "vision.lay.lay_of": ({"power": FIELD_OF_NOISE**2, "pixel": 1e-5}, {"power": (FIELD_OF_NOISE[:127],), "pixel": (0.0,)}),
    "vision.lay.lay_power": ({"power": FIELD_OF_NOISE**2, "lay": 0.1}, {"power": (FIELD_OF_NOISE[:127],)}),
    "vision.spectra.apart": ({"one": 0.1, "other": 3.0}, {}),
    "vision.light_check.light_check": ({"along": Photo(GREY), "across": Photo(GREY), "asked": SEEN_AT}, {"asked": (replace(SEEN_AT, pixel=0.0), replace(SEEN_AT, width=0.0))}),
    "vision.light_check.width_of_marks": ({"grain": 5e-5}, {"grain": (0.0,)}),
    "vision.line_segments.line_shares": ({"field": FIELD_OF_NOISE, "lay": 0.1}, {"field": (FIELD_OF_NOISE[:127], FIELD_OF_NOISE * math.nan)}),
    "vision.line_segments.lines_along": ({"field": FIELD_OF_NOISE, "lay": 0.1, "angle": 1.2}, {"field": (FIELD_OF_NOISE[:127],)}),
    "vision.old_marks.old_marks": ({"shares": [LineShares(np.full(36, 0.01), np.full(36, 0.001))] * 3, "lay": 0.1}, {"shares": ([],)}),
    "vision.same_place.same_place": ({"first": GREY, "second": GREY}, {"first": (GREY[:255],), "second": (GREY[:255],)}),
    "vision.score.eye_score": ({"pairs": [ScoredPair(True, "seen")]}, {}),
    "vision.lay.softness": ({"power": FIELD_OF_NOISE**2, "lay": 0.1}, {"power": (FIELD_OF_NOISE[:127],)}),
    "vision.spectra.mean_power": ({"contrast": FIELD_OF_NOISE}, {"contrast": (FIELD_OF_NOISE[:127],)}),
    "vision.spectra.waves_of": ({"lowest": 0.05}, {"lowest": (0.0, 0.5)}),
    "vision.lay.one_lay": ({"lays": [LayFound(0.1, 20.0)]}, {"lays": ([],)}),
    "vision.light_check.lay_shown": ({"across": Photo(GREY), "pixel": 1e-5}, {"pixel": (0.0,)}),
    "vision.light_check.camera_shows": ({"pixel": 1e-5, "grain": 5e-5}, {"pixel": (0.0,), "grain": (0.0,)}),
    "vision.old_marks.fields_needed": ({}, {}),
    "vision.old_marks.seen_on": ({"patch": Patch(PIECE_OF_NOISE * 1e-7, 8e-6), "look": Look((0.9, 0.8, 0.5), 0.1), "lay": 0.1}, {"patch": (Patch(PIECE_OF_NOISE[:447] * 1e-7, 8e-6),)}),
    "learning.factors.learn": ({"observations": [Observation(1, "paper", "steel", "removal", 0.8)], "off": (), "everything_off": False}, {"observations": ([Observation(1, "paper", "steel", "removal", 0.0)], [Observation(1, "paper", "steel", "removal", math.nan)])}),
    "learning.factors.factors_of": ({"learnt": [Learnt("paper", "steel", "removal", 0.8, 0.1, 5, True, True)]}, {"learnt": ([Learnt("paper", "steel", "removal", 0.0, 0.1, 5, True, True)],)}),
    "learning.robust.shrunken_mean": ({"values": [0.1, 0.2], "prior": 0.5, "spread": 0.05, "noise": 0.2, "worth": 4, "huber": 1.345}, {"values": ([], [math.nan]), "prior": (0.0,), "spread": (0.0,), "noise": (0.0,), "worth": (0.0,), "huber": (0.0,)}),
    "precision.belief.drifted": ({"known": KNOWN, "drift": 0.2}, {"drift": (-0.1,)}),
    "precision.belief.after_round": ({"known": KNOWN, "seconds": 60.0, "read": -15e-6, "variance": 1e-12}, {"seconds": (-1.0,), "variance": (0.0,)}),
    "precision.belief.chance_past": ({"known": KNOWN, "seconds": 60.0, "limit": 2e-5}, {"known": (replace(KNOWN, var_size=0.0), replace(KNOWN, var_log=0.0)), "seconds": (-1.0,)}),
    "precision.belief.longest": ({"known": KNOWN, "limit": 2e-5, "risk": 0.01}, {"risk": (0.0, 0.6)}),
    "precision.lap.cleaned_share": ({"grown": 1e-6, "oval": 2e-5}, {"oval": (-1e-6,)}),
    "precision.lap.oval_left": ({"grown": 1e-6, "oval": 2e-5}, {"oval": (-1e-6,)}),
    "precision.lap.clipped": ({"c": 0.5}, {"c": (-1.01, 1.01)}),
    "precision.form.along": ({"place": 0.2, "taper": 1e-6, "barrel": 1e-6}, {"place": (-0.6, 0.6)}),
    "precision.form.fit_form": ({"readings": READ, "length": 0.04, "repeatability": 2e-6}, {"readings": ([], [Reading(0.0)], [Reading(math.nan)], [Reading(0.02, 0.03)]), "length": (0.0,), "repeatability": (0.0,)}),
    "precision.lap.lap_rate": ({"grain": 17e-6, "speed": 0.4, "hardness": 2e9}, {"grain": (0.0,), "speed": (0.0,), "hardness": (0.0,)}),
    "precision.lap.lap_to_make": ({"kind": "bore", "tightest": 0.02, "length": 0.04, "material": material("bronze")}, {"tightest": (0.0, 5e-6), "length": (0.0,)}),
    "precision.lap.stroke": ({"lap": 0.045, "work": 0.04, "overhang": 0.013}, {"lap": (0.0,), "work": (0.0,), "overhang": (-1e-3, 0.021)}),
    "precision.lap.set_out": ({"growth": 5e-6, "per_turn": 0.02}, {"growth": (-1e-6,), "per_turn": (0.0,)}),
    "precision.learnt.rate_ratio": ({"state": STATE}, {}),
    "precision.learnt.learnt_rate": ({"ratios": [1.1, 0.9, 1.0]}, {"ratios": ([1.0, 0.0], [math.nan])}),
    "precision.lathe.lathe_speeds": ({"diameter": 0.0254, "cutting": 0.4, "ferrous": True, "most": 30.0}, {"diameter": (0.0,), "cutting": (0.0,), "most": (0.0,)}),
    "learning.trial.removal_tried": ({"square": TRIAL, "looks": [LampLook(60.0, "half"), LampLook(120.0, "gone")]}, {"square": (replace(TRIAL, rate=0.0), replace(TRIAL, clears=0.0), replace(TRIAL, life=0.0)), "looks": ([], [LampLook(-1.0, "half")])}),
    "learning.trial.scratch_tried": ({"ra": 1.5e-6, "expected": 1e-6, "error": 0.1}, {"ra": (0.0,), "expected": (0.0,), "error": (0.0,)}),
    "learning.trial.together": ({"tried": [Tried(0.4, 0.2), Tried(0.6, 0.2)]}, {"tried": ([], [Tried(0.4, 0.0)], [Tried(0.4, 0.9)] * 2)}),
    "learning.trial.layer_weighed": ({"lost": 2e-4, "density": 8400.0, "area": 25e-4, "error": 1e-5}, {"density": (0.0,), "area": (0.0,), "error": (0.0,)}),
    "learning.trial.layer_measured": ({"before": [3e-3] * 3, "after": [2.99e-3] * 3, "error": 2e-6}, {"before": ([], [3e-3]), "error": (0.0,)}),
    "precision.move.readings_needed": ({"tolerance": 2e-5, "repeatability": 2e-6, "bias": 1e-6}, {"tolerance": (2e-6,), "repeatability": (0.0,)}),
    "precision.move.next_move": ({"state": STATE, "gauge": GAUGE, "risk": 0.01}, {"risk": (0.0, 0.6)}),
    "precision.move.target_of": ({"state": STATE, "gauge": GAUGE}, {}),
    "precision.move.finishing_stock": ({"marks": 1e-6}, {"marks": (-1e-7,)}),
    "precision.readings.at_gauge_temperature": ({"diameter": 0.025, "expansion": 1.15e-5, "warmer": 10.0}, {"diameter": (0.0,), "expansion": (-1e-6,), "warmer": (-501.0, 501.0)}),
    "precision.readings.warmth_unsure": ({"diameter": 0.025, "expansion": 1.15e-5, "warmer": 10.0}, {"diameter": (0.0,), "expansion": (-1e-6,), "warmer": (-501.0, 501.0)}),
    "precision.readings.everywhere": ({"length": 0.04}, {"length": (0.0,)}),
    "precision.readings.narrowest": ({"length": 0.04, "direction": 1.0, "count": 4}, {"length": (0.0,), "count": (-1,)}),
    "precision.readings.outlier": ({"readings": READ, "repeatability": 2e-6, "growth": 1e-5}, {"readings": ([Reading(math.nan)],), "repeatability": (0.0,), "growth": (-1e-6,)}),
    "precision.state.follow": ({"part": BUSH, "rounds": [MEASURED], "gauge": GAUGE}, {"rounds": ([], [WorkRound(60.0, LAP, READ)], [MEASURED, WorkRound(-1.0, LAP, READ)])}),
    "precision.face.to_size": ({"face": ROUND, "sized": Sized(BUSH, GAUGE, READ)}, {"sized": (Sized(BUSH, GAUGE, (Reading(math.nan),)),)}),
    "precision.face.sizing_tools": ({"steps": WAY, "spread": 1.0}, {"steps": ([SizingStep("bore-lap-f400", 0.0, 60.0)], [SizingStep("bore-lap-f400", 1e-6, 0.0)]), "spread": (0.0,)}),
    "precision.face.size_of_face": ({"sized": Sized(BUSH, GAUGE, READ), "steps": WAY, "rounds": [MEASURED], "material": material("bronze")}, {"rounds": ([], [WorkRound(60.0, LAP, READ)])}),
    "precision.lap.laps_at_hand": ({"items": (), "kind": "bore", "tightest": 0.014, "target": 0.01401, "length": 0.03, "grade": parse_grade("F400")}, {"tightest": (0.0,), "target": (0.0,), "length": (0.0,)}),
    "precision.pair.pair_up": ({"bore": Mate(STATE, GAUGE, 18e-6), "shaft": Mate(SHAFT_STATE, GAUGE, 12e-6), "least": 7e-6, "most": 2e-5}, {"bore": (Mate(SHAFT_STATE, GAUGE, 18e-6),), "shaft": (Mate(STATE, GAUGE, 12e-6),), "most": (7e-6,)}),
    "precision.stop_sheet.stops_of_layers": ({"steps": [("F400", 1e-6)], "start": 0.014, "target": 0.01401, "sign": 1.0}, {"steps": ([("F400", -1e-6)],), "start": (0.0,), "target": (0.0,), "sign": (0.5,)}),
    "precision.stop_sheet.stop_sheet": ({"grades": [SizingGrade("P400", 1e-6, 2.0)], "target": 0.014, "sign": -1.0}, {"grades": ([SizingGrade("P400", -1e-6, 2.0)],), "target": (0.0,), "sign": (0.5,)}),
    "precision.tolerances.deviations": ({"nominal": 0.025, "written": ToleranceClass("H", 7)}, {"nominal": (0.9e-3, 0.251)}),
    "precision.tolerances.clearance": ({"hole": Deviations(0.0, 2.1e-5), "shaft": Deviations(-2e-5, -7e-6)}, {}),
}  # fmt: skip


def called(name: str) -> Callable[..., Any]:
    module, _, function = name.rpartition(".")
    found = getattr(importlib.import_module(f"kelbrast.core.{module}"), function)
    return found.__wrapped__ if hasattr(found, "cache_info") else found  # a cache cannot take what has no hash


@pytest.mark.text
def test_every_function_is_called() -> None:
    assert set(CALLS) == set(ALL)


@pytest.mark.parametrize("name", CALLS)
def test_it_holds_within_its_range_and_refuses_what_lies_outside(name: str) -> None:
    right, wrong = CALLS[name]
    function = called(name)
    function(**right)
    numbers = {arg: (math.nan,) for arg, value in right.items() if isinstance(value, float)}
    for arg in {**numbers, **wrong}:
        for value in (*wrong.get(arg, ()), *numbers.get(arg, ())):
            with pytest.raises(OutsideValidity):
                function(**{**right, arg: value})


@pytest.mark.text
def test_the_table_of_equations_is_current() -> None:
    sys.path.insert(0, str(CORE.parents[2] / "docs"))
    from print_equations import written

    text = (CORE.parents[2] / "docs" / "model.md").read_text(encoding="utf-8")
    assert written(text) == text, "make types prints it anew"
