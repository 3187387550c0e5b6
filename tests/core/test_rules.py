"""Every rule of the trade has one home, a source, and a case that it decides."""

import importlib
import pkgutil
import sys
from pathlib import Path

import numpy as np
import pytest

from kelbrast.core import rules
from kelbrast.core.catalogue.materials import families
from kelbrast.core.planning.face.binding import binding
from kelbrast.core.planning.face.routes import RouteRequest
from kelbrast.core.planning.face.step_figures import step_figures
from kelbrast.core.reference.loader import sources
from kelbrast.core.rules.book import BOOK, forbidden_steps, forbidden_tools, possible_ends, usable
from kelbrast.core.rules.order import families_apart, order_of_work, round_of
from kelbrast.core.rules.protection import protection_of, time_left
from kelbrast.core.rules.rule import REFUSALS, EndRule, LimitRule, Rule, StepRule, ToolRule
from kelbrast.core.surface.part import Part
from kelbrast.core.tooling.surfaces import surfaces_of
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import tools_on_face
from making import face, job, plan
from refusals import DECIDED

ROOT = Path(__file__).parents[2]
ALL = [rule for theme in BOOK.values() for rule in theme]


def test_every_module_of_the_package_is_in_the_book() -> None:
    modules = {name for _, name, _ in pkgutil.iter_modules(rules.__path__)} - {"rule", "book"}
    assert modules == set(BOOK)
    assert all(importlib.import_module(f"kelbrast.core.rules.{name}").__doc__ for name in modules)


def test_every_rule_is_whole() -> None:
    assert len({rule.id for rule in ALL}) == len(ALL)
    for rule in ALL:
        assert rule.source in sources(), rule.id
        assert rule.says.endswith("."), rule.id
        assert rule.lifted_by, rule.id
        assert rule.does, rule.id


def test_every_refusal_of_the_plan_file_has_its_rules() -> None:
    named = {rule.refusal for rule in ALL if isinstance(rule, ToolRule | StepRule | EndRule | LimitRule)} - {None}
    assert named == set(REFUSALS)


@pytest.mark.text
def test_the_page_of_rules_is_current() -> None:
    sys.path.insert(0, str(ROOT / "docs"))
    from print_rules import page

    assert (ROOT / "docs" / "rules.md").read_text(encoding="utf-8") == page(), "make types prints it anew"


def test_every_rule_that_forbids_decides_a_case() -> None:
    assert set(DECIDED) == {rule.id for rule in ALL if isinstance(rule, ToolRule | StepRule)}


@pytest.mark.parametrize("name", DECIDED)
def test_the_rule_decides_its_case_and_says_why(name: str) -> None:
    stuff, of_face, of_job, says = DECIDED[name]
    rule = next(rule for rule in ALL if rule.id == name)
    one = face(**of_face)
    planned = job(stuff, one, **of_job)
    context = ToolContext.of(one, planned)
    figures = step_figures(one, planned, tools_on_face)
    assert isinstance(rule, ToolRule | StepRule)
    mask = rule.mask(figures.surfaces)
    assert mask.any(), "the rule sees its case"
    of_tools = forbidden_tools(figures.surfaces.toolset, context).get(rule.refusal, np.zeros(len(mask), dtype=bool))
    of_steps = forbidden_steps(figures.surfaces).get(rule.refusal, np.zeros_like(mask))
    assert ((of_steps | of_tools[None, :]) & mask).sum() == mask.sum()
    before, at = next((a, b) for a, b in np.argwhere(mask).tolist() if a < b)
    assert says in str(rule.reason(figures.surfaces, before, at))
    refused = binding(figures, RouteRequest(limit=one.may_come_off))
    assert refused.rule == rule.refusal or "as well" in str(refused.reason) or rule.refusal == "too-soft", str(refused.reason)


def test_a_tool_is_usable_when_no_rule_forbids_it() -> None:
    one = face("mirror", depth=20, area=0.02, curved=True)
    context = ToolContext.of(one, job("brass", one))
    forbidden = [rule for rule in ALL if isinstance(rule, ToolRule)]
    left = {on.tool.id for on in usable(context)}
    for on in tools_on_face(context):
        assert (on.tool.id in left) == (not any(rule.forbids(on, context) for rule in forbidden))
    assert 0 < len(left) < len(tools_on_face(context))


def test_where_a_route_may_end() -> None:
    one = face("bright", depth=3)
    context = ToolContext.of(one, job("brass", one))
    ends = possible_ends(surfaces_of(one, context, tools_on_face(context)))
    assert set(ends) == {"lay", "not-fine-enough", None}
    assert not ends[None][0], "damage is never a finish"
    assert ends[None][1:].all()


class TestOrder:
    def test_recesses_then_open_faces_then_brushed_ones(self) -> None:
        brushed, plain, recess = face("brushed-fine"), face("bright"), face("bright", reach="tight")
        away = face("bright", keep_off=True)
        assert [round_of(one) for one in (brushed, plain, recess)] == ["brushed faces", "open faces", "recesses"]
        assert order_of_work((brushed, away, plain, recess)) == [recess, plain, brushed]

    def test_a_brushed_recess_is_brushed_last_all_the_same(self) -> None:
        assert round_of(face("brushed-fine", reach="tight")) == "brushed faces"

    def test_families_follow_each_other(self) -> None:
        assert families_apart([("a", 1), ("b", 2), ("a", 3)]) == [[1, 3], [2]]


class TestProtection:
    @pytest.mark.parametrize(
        ("stuff", "want", "protect", "kind"),
        [
            ("brass", "bright", "usual", families()["copper-alloy"].protection),
            ("brass", "bright", "none", "none"),
            ("brass", "bright", "wax", "wax"),
            ("mild-steel", "paint-ready", "usual", "none"),
            ("mild-steel", "paint-ready", "oil", "oil"),
        ],
    )
    def test_what_protects_it(self, stuff: str, want: str, protect: str, kind: str) -> None:
        assert protection_of(job(stuff, face(want), part=Part(protect=protect)))[0] == kind

    def test_a_face_that_is_kept_off_does_not_wait_for_paint(self) -> None:
        painted = face("paint-ready", keep_off=True)
        assert protection_of(job("brass", painted))[0] == families()["copper-alloy"].protection

    def test_the_time_that_is_left(self) -> None:
        assert time_left(within=None, since_last_step=10.0) is None
        assert time_left(within=60.0, since_last_step=None) is None
        assert time_left(within=60.0, since_last_step=10.0) == 50.0


def test_a_lathe_tool_on_a_flat_is_refused_for_what_it_is() -> None:
    made = plan("brass", face("satin", depth=20), rack=("lathe", "lathe-cloth-p240"))
    assert made.binding is not None
    assert "bores" not in str(made.binding.reason)


def test_the_base_of_all_rules_does_nothing() -> None:
    with pytest.raises(NotImplementedError):
        Rule(id="", says="", source="", lifted_by="").does  # noqa: B018


def test_a_face_that_stays_flat_is_worked_by_what_keeps_its_form() -> None:
    flat, free = (plan("bronze", face("N4", depth=20, stays_flat=stays)) for stays in (True, False))
    assert flat.steps
    assert all(step.tool.carrier.cutting.keeps_size for step in flat.steps)
    assert not all(step.tool.carrier.cutting.keeps_size for step in free.steps)
