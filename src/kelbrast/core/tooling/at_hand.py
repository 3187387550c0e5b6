"""The tools and machines that a job is planned with: all, named ids, or the shop's own rack."""

from dataclasses import replace
from typing import Any, TypeVar

from kelbrast.core.catalogue.machines import Machine, machine, machines
from kelbrast.core.catalogue.tools import Running, Stock, Tool, tool, tools
from kelbrast.core.errors import BadInput, Fault, NotFound
from kelbrast.core.rack.offer import Own, OwnMachine, OwnTool

Group = TypeVar("Group", Running, Stock)


def choose_rack(rack: tuple[str, ...] | None, field: str = "rack") -> tuple[tuple[Tool, ...], tuple[Machine, ...]]:
    """The tools and machines that a rack's ids name. Where it names no tool, or no machine, all starter ones may be used.

    Raises:
        BadInput: an id that is neither tool nor machine, named by its place in the list.
    """
    if rack is None:
        return _in_use(), tuple(machines().values())
    named_tools: dict[str, Tool] = {}
    named_machines: dict[str, Machine] = {}
    faults = []
    for place, key in enumerate(rack):
        try:
            if key in machines():
                named_machines[key] = machine(key)
            else:
                named_tools[key] = tool(key)
        except NotFound as missing:
            faults.append(Fault(f"{field}[{place}]", str(missing), hint="see kelbrast list tools"))
    if faults:
        raise BadInput(faults)
    if named_machines:
        named_machines["hand"] = machine("hand")
    return tuple(named_tools.values()) or _in_use(), tuple((named_machines or machines()).values())


def _in_use() -> tuple[Tool, ...]:
    return tuple(tool for tool in tools().values() if not tool.carrier.retired)


def own_rack(own: Own) -> tuple[tuple[Tool, ...], tuple[Machine, ...]]:
    """The tools and machines of a shop's own rack, with its own figures, and the extras as in the catalogue.

    Raises:
        BadInput: an extra that does not exist.
    """
    extra_tools, extra_machines = choose_rack(own.extras) if own.extras else ((), ())
    owned = {own_tool.tool: _as_owned(own_tool) for own_tool in own.tools}
    extra = {tool.id: tool for tool in extra_tools if tool.id in own.extras and tool.id not in owned}
    turning = [machine("hand"), *(_with_speeds(machine) for machine in own.machines)]
    turning += [machine for machine in extra_machines if machine.id in own.extras]
    return (*owned.values(), *extra.values()), tuple({machine.id: machine for machine in turning}.values())


def _as_owned(own: OwnTool) -> Tool:
    one = tool(own.tool)
    run = _with(one.carrier.running, diameter=own.new, marked_limit=own.marked)
    stock = _with(one.carrier.stock, price=own.price, life=own.life)
    return replace(one, carrier=replace(one.carrier, running=run, stock=stock))


def _with(group: Group, **figures: float | None) -> Group:
    """With those of the figures that are given."""
    given: dict[str, Any] = {name: value for name, value in figures.items() if value is not None}
    return replace(group, **given)


def _with_speeds(own: OwnMachine) -> Machine:
    one = machine(own.machine)
    return replace(one, settings=own.speeds, low=None, high=None) if own.speeds else one
