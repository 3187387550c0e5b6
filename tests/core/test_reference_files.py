"""The reference files cannot be wrong in silence: each kind of slip, made in every place, is refused by file, entry and key."""

import copy
import json
from collections.abc import Iterator
from dataclasses import replace
from typing import Any, get_args

import pytest

from kelbrast.core.bench.instruments import GaugedQuantity
from kelbrast.core.catalogue.materials import families, materials, missing_bands
from kelbrast.core.catalogue.tools import Tool, speed_bands, tools, wear_coefficient
from kelbrast.core.errors import ReadError
from kelbrast.core.rack.upkeep import On
from kelbrast.core.reference.loader import record
from kelbrast.core.reference.raw import record_written, table_written
from kelbrast.core.reference.schemas import (
    FOUND,
    LOOKED_AFTER,
    PROTECTIONS,
    QUANTITIES,
    RECORDS,
    SOURCES,
    TABLES,
    misfits,
    table_misfits,
)
from kelbrast.core.reference.shape import Each, Written
from kelbrast.core.simulation.light import look_of
from kelbrast.core.surface import part
from kelbrast.core.surface.found import FOUND_KINDS

ToolContext = tuple[str | int, ...]


def places(node: Any, at: ToolContext = ()) -> Iterator[tuple[ToolContext, Any]]:
    """Every place of a file with what stands there; a number with its unit and source is one place."""
    yield at, node
    if isinstance(node, dict):
        for key, value in node.items():
            yield from places(value, (*at, key))
    elif isinstance(node, list) and not is_number(node):
        for index, value in enumerate(node):
            yield from places(value, (*at, index))


def entries(name: str) -> Iterator[tuple[dict[str, Any], ToolContext, Any]]:
    """Every place of every entry of a file, with a file of that entry alone where entries have names of their own."""
    whole = record_written(name)
    apart = [{key: entry} for key, entry in whole.items()] if isinstance(RECORDS[name], Each) else [whole]
    return ((part, at, node) for part in apart for at, node in places(part))


def is_number(node: Any) -> bool:
    return isinstance(node, list) and bool(node) and isinstance(node[0], int | float)


def said(name: str, at: ToolContext) -> str:
    """A place as a refusal names it."""
    path = "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in at)
    return f"{name}.toml:{path.removeprefix('.')}"


def changed(whole: dict[str, Any], at: ToolContext, value: Any) -> dict[str, Any]:
    """A copy with another value in this place."""
    new = copy.deepcopy(whole)
    reached(new, at[:-1])[at[-1]] = value
    return new


def without(whole: dict[str, Any], at: ToolContext) -> dict[str, Any]:
    """A copy with nothing in this place."""
    new = copy.deepcopy(whole)
    del reached(new, at[:-1])[at[-1]]
    return new


def reached(node: Any, at: ToolContext) -> Any:
    for step in at:
        node = node[step]
    return node


def refused(name: str, given: dict[str, Any]) -> dict[str, str]:
    return {fault.field: fault.message for fault in misfits(name, given)}


@pytest.mark.parametrize("name", RECORDS)
def test_a_number_of_another_kind_or_without_a_source_is_refused_everywhere(name: str) -> None:
    for whole, at, number in entries(name):
        if not is_number(number):
            continue
        value, unit, source, *rest = number
        wrongs = [
            ([value, "rev/min" if unit == "money" else "money", source, *rest], 'is in "'),
            ([value, unit, "nobody", *rest], 'cites "nobody"; expected a key of sources.toml'),
            ([value, unit], 'expected [number, "unit", "source"]'),
            ([value, unit, source, "x", "y"], 'expected [number, "unit", "source"]'),
            ([-1, unit, source], "not below 0"),
            ([float("nan"), unit, source], "expected one"),
            ([True, unit, source], "expected one"),
            ("25 mm", 'expected [number, "unit", "source"]'),
        ]
        for wrong, why in wrongs:
            assert why in refused(name, changed(whole, at, wrong))[said(name, at)], (at, wrong)


@pytest.mark.parametrize("name", sorted(set(RECORDS) - {"sentences"}))
def test_a_key_that_nobody_knows_or_that_is_missing_is_refused(name: str) -> None:
    for whole, at, node in entries(name):
        own_names = at[-1:] == ("sizes",) or at == (("cautions",) if name == "advice" else ())
        if not isinstance(node, dict) or (own_names and name != "process"):
            continue
        assert "is not a key here" in refused(name, changed(whole, (*at, "weet"), True))[said(name, (*at, "weet"))]
        lost = [
            key for key in node if "is missing" in refused(name, without(whole, (*at, key))).get(said(name, (*at, key)), "")
        ]
        assert lost, f"{at} could be empty"


@pytest.mark.parametrize(
    ("name", "at", "wrong", "expected"),
    [
        ("carriers", ("felt", "keep_size"), True, 'did you mean "keeps_size"?'),
        ("carriers", ("felt", "weet"), True, 'did you mean "wet"?'),
        ("carriers", ("felt", "force"), [25, "mm", "starter"], "expected a force, in N, lbf"),
        ("carriers", ("felt", "wet"), "true", "expected true or false"),
        ("carriers", ("felt", "not_for"), ["wood"], "expected a key of families.toml"),
        ("carriers", ("felt", "band"), "colours", 'did you mean "colour"?'),
        ("carriers", ("felt", "mount"), "wheel", "expected a mount that a machine takes"),
        ("carriers", ("felt", "cautions"), ["eye"], 'did you mean "eyes"?'),
        ("carriers", ("felt", "compounds"), [], "expected a list with something in it"),
        ("materials", ("copper", "family"), "copper", 'did you mean "copper-alloy"?'),
        ("machines", ("bench-buffer", "spindles"), 0, "expected a whole number above 0"),
        ("machines", ("bench-buffer", "spindles"), True, "expected a whole number above 0"),
        ("finishes", ("mirror", "label"), "", "expected words in quotes"),
        ("uses", ("show", "finish"), "mirrors", 'did you mean "mirror"?'),
        ("families", ("steel", "bars"), ["red"], "expected a key of compounds.toml"),
        ("families", ("steel", "look"), "iron", "expected a key of looks.toml"),
    ],
)
def test_a_slip_is_refused_with_what_is_expected(name: str, at: ToolContext, wrong: Any, expected: str) -> None:
    found = refused(name, changed(record_written(name), at, wrong))
    assert len(found) == 1
    (where, message), *_ = found.items()
    assert where.startswith(said(name, at))
    assert expected in message


def test_what_belongs_together_is_not_given_in_part() -> None:
    machines = record_written("machines")
    found = refused("machines", without(machines, ("bench-buffer", "turns")))
    assert found["machines.toml:bench-buffer.turns"].startswith("is missing; it belongs to view")


def test_a_record_that_does_not_fit_is_not_loaded(monkeypatch: pytest.MonkeyPatch) -> None:
    record.cache_clear()
    monkeypatch.setattr("kelbrast.core.reference.loader.record_written", lambda name: {"tin": {"body": [1, "1", "looks"]}})
    try:
        with pytest.raises(ReadError, match=r"looks\.toml:tin\.reflects: is missing"):
            record("looks")
    finally:
        record.cache_clear()


def test_a_source_says_what_kind_it_is() -> None:
    found = [str(fault) for fault in SOURCES.faults("sources.toml:", {"mine": {"title": "A book", "kind": "heard"}})]
    assert found == ['sources.toml:mine.kind: is "heard"; expected one of published, memory, practice, fitted, assumed, own']


@pytest.mark.parametrize("name", TABLES)
def test_a_table_loses_nothing(name: str) -> None:
    heading, first, *rest = table_written(name)
    assert not list(table_misfits(name, (heading, first, *rest)))

    def faults(line: list[str]) -> list[str]:
        return [str(fault) for fault in table_misfits(name, (heading, line, *rest))]

    for wrong in ([*first, " kept below steel"], first[:-1]):
        assert faults(wrong) == [
            f"{name}.csv:2: has {len(wrong)} cells; expected {len(first)}, one with a comma in it in quotes"
        ]
    number, source = list(TABLES[name].values()).index(Written()), heading.index("source")
    for wrong in ("fast", "0", "-1", "nan", "inf", ""):
        (said,) = faults([*first[:number], wrong, *first[number + 1 :]])
        shown = json.dumps(wrong)
        assert said == f"{name}.csv:2.{heading[number]}: is {shown}; expected a number above 0"
    (said,) = faults([*first[:source], "nobody", *first[source + 1 :]])
    assert f'{name}.csv:2.source: is "nobody"; expected a key of sources.toml' in said
    (said,) = [str(fault) for fault in table_misfits(name, ([*heading[:-1], "notes"], first))]
    assert said.startswith(f"{name}.csv:1: has the columns")


def test_the_names_of_the_files_are_those_of_the_code() -> None:
    assert set(LOOKED_AFTER) == set(get_args(On))
    assert set(QUANTITIES) == set(get_args(GaugedQuantity))
    assert {*PROTECTIONS, "usual"} == set(part.PROTECTIONS)
    assert set(FOUND) == set(FOUND_KINDS)
    assert {key for key in PROTECTIONS if key != "none"} <= record_written("operations").keys()


def test_the_notes_of_the_speeds_are_whole() -> None:
    rows = {row[0] + row[1]: row for row in table_written("buffing_bands")}
    assert rows["cuttitanium"][-1] == "as brass, kept below steel: no handbook value at hand"


def test_a_carrier_of_a_constant_law_says_its_wear() -> None:
    one = next(tool.carrier for tool in tools().values() if tool.carrier.cutting.wear_law == "constant")
    with pytest.raises(ReadError, match=rf"carriers\.toml:{one.id}\.wear: is missing"):
        wear_coefficient(replace(one, cutting=replace(one.cutting, wear=None)), 50e-6)


def worked_with(tool: Tool, family: str) -> bool:
    carrier = tool.carrier
    return tool.keeps_clean(family) and (carrier.running.band is None or (carrier.running.band, family) in speed_bands())


@pytest.mark.parametrize("key", families())
def test_every_family_is_complete(key: str) -> None:
    """It has materials, a look, speeds wherever it may be worked, a wheel or pad with each of its bars, and, unless only few
    carriers may touch it, an abrasive on a backing."""
    kin = [material for material in materials().values() if material.family == key]
    assert kin
    for one in kin:
        assert 0 <= look_of(one).body <= 1
    may = [tool for tool in tools().values() if tool.keeps_clean(key)]
    assert all(worked_with(tool, key) for tool in may)
    assert any(tool.carrier.cutting.backed for tool in may) or {tool.carrier.id for tool in may} == {*families()[key].worked_by}
    assert {tool.charge for tool in may if tool.carrier.cutting.wear_law == "compound"} == set(families()[key].bars)


def test_a_family_that_is_only_half_there_is_refused_by_name() -> None:
    half = replace(families()["silver"], id="half-there", speeds_as=None)
    known = set(speed_bands())
    found = [str(fault) for fault in missing_bands([*families().values(), half], record_written("carriers"), known)]
    uses = {row["band"] for key, row in record_written("carriers").items() if "band" in row and half.may_be_worked_by(key, row)}
    assert len(found) == len(uses)
    assert all(one.startswith("families.toml:half-there: has no speeds for") for one in found)
