"""Keep a job, plan it and begin it at the bench: python docs/client.py http://127.0.0.1:8642 a.job.json"""

import json
import sys
import urllib.request
from pathlib import Path


def ask(method: str, way: str, body: object = None) -> dict:
    data = json.dumps(body).encode() if body is not None else None
    asked = urllib.request.Request(sys.argv[1] + way, data, {"Content-Type": "application/json"}, method=method)
    with urllib.request.urlopen(asked) as answer:
        return json.load(answer)


kept = ask("POST", "/api/jobs", json.loads(Path(sys.argv[2]).read_text(encoding="utf-8")))
for face in ask("GET", f"/api/jobs/{kept['id']}/plan")["faces"]:
    print(face["name"], *(f"{step['label']} {step['minutes']:.0f} min" for step in face["steps"]), sep="\n  ")
run = ask("POST", f"/api/jobs/{kept['id']}/runs")
tap = {"kind": "started", **{key: run["hand"][key] for key in ("piece", "face", "route", "step")}}
run = ask("POST", f"/api/runs/{run['id']}/taps", {"name": "client-0001", "after": run["seen"], "tap": tap})
print(f"run {run['id']} is at step {run['hand']['step']}, begun")
