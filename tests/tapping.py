"""Taps in a line: over HTTP, or beside the screen that is tested."""

from typing import Any

from starlette.testclient import TestClient

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.runs import Runs
from kelbrast.documents.run.format import TapFile


def tap(client: TestClient, run: dict[str, Any], kind: str, *, after: int | None = None, **more: Any):
    """A tap at the piece and step in hand of this run, as the API answered it last."""
    hand = run["hand"] or {}
    at = {key: hand[key] for key in ("piece", "face", "route", "step")} if hand else {}
    body = {
        "tap": {"kind": kind, **at, **more},
        "name": f"{kind}-{run['seen']:06}",
        "after": run["seen"] if after is None else after,
    }
    return client.post(f"/api/runs/{run['id']}/taps", json=body)


def leave_out(runs: Runs, kept: KeptRun) -> KeptRun:
    """Leave the step in hand out on the piece in hand, as another screen would."""
    assert kept.run.current is not None
    piece, stage = kept.run.current
    at: dict[str, Any] = {"piece": piece, "face": stage.face, "route": stage.route, "step": stage.step}
    tap = TapFile.model_validate({"kind": "skipped", "words": "to see the next", **at})
    return runs.tap(kept.id, tap, name=f"skip-{kept.run.seen:06}", after=kept.run.seen)
