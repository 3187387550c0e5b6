"""Taps over HTTP, in a line."""

from typing import Any

from starlette.testclient import TestClient


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
