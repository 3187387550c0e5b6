"""Keeping what the person wants of a route, as masks over the steps of a graph."""

import numpy as np

from kelbrast.core.arrays import Flags
from kelbrast.core.surface.face import Wish


def narrow(steps: Flags, ends: Flags, tools: tuple[str, ...], wish: Wish) -> tuple[Flags, Flags]:
    """The steps and ends of a graph that keep a wish. Tool k of `tools` is node k + 1.

    Steps only lead to later nodes, so a route passes a node when no step leads over it and it ends no earlier.
    A tool that is not there at all leaves no route.
    """
    if wish.empty:
        return steps, ends
    steps, ends = steps.copy(), ends.copy()
    node = {tool: at for at, tool in enumerate(tools, start=1)}
    if wish.route:
        return _exactly([node.get(tool) for tool in wish.route], steps, ends)
    for tool in wish.leave_out:
        if tool in node:
            steps[:, node[tool]] = False
    for tool in (*wish.lock, *((wish.start,) if wish.start else ())):
        if tool not in node:
            return np.zeros_like(steps), np.zeros_like(ends)
        at = node[tool]
        steps[:at, at + 1 :] = False
        ends[:at] = False
    if wish.start:
        steps[1 : node[wish.start], :] = False
        steps[0, : node[wish.start]] = False
    return steps, ends


def _exactly(nodes: list[int | None], steps: Flags, ends: Flags) -> tuple[Flags, Flags]:
    known = [node for node in nodes if node is not None]
    only, last = np.zeros_like(steps), np.zeros_like(ends)
    if len(known) == len(nodes):
        for before, at in zip((0, *known), known, strict=False):
            only[before, at] = True
        last[known[-1]] = True
    return steps & only, ends & last
