"""Several jobs in one archive, out and in; the plan for a spreadsheet."""

import csv
import io
import json
import random
import zipfile

import pytest

from kelbrast.core.errors import BadInput
from kelbrast.documents.job import archive as module
from kelbrast.documents.job.archive import jobs_archive, read_jobs_archive


def zipped(**files: str) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, text in files.items():
            archive.writestr(name.replace("__", "."), text)
    return out.getvalue()


def test_jobs_go_out_and_in_as_they_were(client, collar) -> None:
    ids = [client.post("/api/jobs", json={**collar, "title": title}).json()["id"] for title in ("Collar", "Collar", "Ring/2")]
    answer = client.get("/api/jobs.zip", params={"job": ids})
    assert answer.headers["content-type"] == "application/zip"
    with zipfile.ZipFile(io.BytesIO(answer.content)) as archive:
        assert archive.namelist() == ["collar.job.json", "collar-2.job.json", "ring-2.job.json"]
    kept = client.post("/api/jobs.zip", content=answer.content, headers={"content-type": "application/zip"})
    assert kept.status_code == 201
    assert [one["job"] for one in kept.json()] == [client.get(f"/api/jobs/{one}").json()["job"] for one in ids]
    assert client.get("/api/jobs.zip", params={"job": 999}).status_code == 404
    assert client.get("/api/jobs.zip").status_code == 422


def test_one_fault_and_nothing_of_an_archive_is_kept(client, collar) -> None:
    good, bad = json.dumps(collar), json.dumps({**collar, "material": "stainless-305"})
    data = zipped(good__job__json=good, bad__job__json=bad, readme__txt="not ours, passed over")
    refused = client.post("/api/jobs.zip", content=data, headers={"content-type": "application/zip"})
    assert refused.status_code == 422
    assert "bad.job.json" in refused.json()["detail"]
    assert "stainless-305" in refused.json()["detail"]
    assert client.get("/api/jobs").json()["jobs"] == []


def test_what_is_no_archive_of_jobs_is_refused(collar, monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(BadInput, match="not an archive"):
        read_jobs_archive(b"PK no")
    with pytest.raises(BadInput, match="no job files"):
        read_jobs_archive(zipped(readme__txt="hello"))
    good = jobs_archive([collar] * 2)
    assert len(read_jobs_archive(good)) == 2
    monkeypatch.setattr(module, "LARGEST_UNPACKED", 100)
    with pytest.raises(BadInput, match="MB of job files"):
        read_jobs_archive(good)
    monkeypatch.setattr(module, "LARGEST_FILE", 50)
    with pytest.raises(BadInput, match="larger than a job file"):
        read_jobs_archive(good)
    monkeypatch.setattr(module, "MOST_FILES", 1)
    with pytest.raises(BadInput, match="more than 1 job files"):
        read_jobs_archive(good)


def test_a_damaged_archive_is_taken_or_refused_and_nothing_else(collar) -> None:
    good, luck = jobs_archive([collar] * 2), random.Random(7)
    refused = 0
    for _ in range(300):
        hurt = bytearray(good)
        for _ in range(luck.choice((1, 2, 8))):
            hurt[luck.randrange(len(hurt))] = luck.randrange(256)
        if luck.random() < 0.2:
            hurt = hurt[: luck.randrange(len(hurt))]
        try:
            read_jobs_archive(bytes(hurt))
        except BadInput:
            refused += 1
    assert refused > 200


def test_the_plan_is_a_row_a_step(client, collar) -> None:
    job = client.post("/api/jobs", json=collar).json()["id"]
    plan = client.get(f"/api/jobs/{job}/plan").json()
    answer = client.get(f"/api/jobs/{job}/plan.csv")
    rows = list(csv.DictReader(io.StringIO(answer.text)))
    steps = [(face["name"], step) for face in plan["faces"] for step in face["steps"]]
    assert [(row["face"], row["tool"]) for row in rows] == [(face, step["label"]) for face, step in steps]
    assert [float(row["minutes"]) for row in rows] == pytest.approx([step["minutes"] for _, step in steps], rel=1e-5)
    tight = {**collar, "faces": [{**collar["faces"][0], "limit_um": 1}]}
    job = client.post("/api/jobs", json=tight).json()["id"]
    (row,) = csv.DictReader(io.StringIO(client.get(f"/api/jobs/{job}/plan.csv").text))
    assert row["step"] == ""
    assert row["tool"]
