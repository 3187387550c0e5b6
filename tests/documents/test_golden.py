"""A change of the inside changes nothing of what people see, unless it says so."""

import json

from golden import BAD, FILE, golden


def test_plans_schemas_and_faults_are_what_they_were() -> None:
    held = json.loads(FILE.read_text(encoding="utf-8"))
    assert len(held["texts"]) == 28
    assert golden() == held, "python tests/golden.py FOLDER, before and after, shows what differs"


def test_every_bad_job_says_what_is_wrong() -> None:
    held = json.loads(FILE.read_text(encoding="utf-8"))["faults"]
    assert set(held) == set(BAD)
    assert all(held.values())
