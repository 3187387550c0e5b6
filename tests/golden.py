"""What people see of the examples, to the byte: `python tests/golden.py` writes down what it is now, and a test holds it.

A plan is long, so its digest is kept; `python tests/golden.py FOLDER` writes the whole texts, to compare two states of the code.
"""

import json
import sys
from collections.abc import Iterator
from hashlib import sha256
from pathlib import Path
from typing import Any, Final

from kelbrast.app.planning import plan_file
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.read import read_job_file, to_job
from kelbrast.documents.plan.text import plan_text
from kelbrast.documents.schema import schema

FILE: Final = Path(__file__).with_name("golden.json")
EXAMPLES: Final = sorted((Path(__file__).parents[1] / "examples").glob("*.job.json"))
_FACE: Final[dict[str, Any]] = {"name": "lid", "area_cm2": 40, "found": {"after": "P240"}, "want": {"finish": "mirror"}}
_JOB: Final[dict[str, Any]] = {"kelbrast": "job/2", "title": "Case", "material": "brass", "faces": [_FACE]}
BAD: Final[dict[str, Any]] = {
    "no faces": {**_JOB, "faces": []},
    "an unknown key": {**_JOB, "colour": "red"},
    "an unknown material": {**_JOB, "material": "bras"},
    "an unknown finish": {**_JOB, "faces": [{**_FACE, "want": {"finish": "miror"}}]},
    "a depth below zero": {**_JOB, "faces": [{**_FACE, "found": {"depth_um": -1}}]},
    "no area": {**_JOB, "faces": [{key: value for key, value in _FACE.items() if key != "area_cm2"}]},
    "two faces of one name": {**_JOB, "faces": [_FACE, _FACE]},
    "a grade that does not exist": {**_JOB, "faces": [{**_FACE, "found": {"after": "sandpaper"}}]},
    "an unknown tool": {**_JOB, "rack": ["paper-p240", "papr-p400"]},
    "a coat without what stays": {**_JOB, "faces": [{**_FACE, "coat_um": 40}]},
    "an unknown version": {**_JOB, "kelbrast": "job/9"},
    "no JSON": "[",
}


def fault_lines(bad: dict[str, Any] | str) -> list[str]:
    """The faults of a job that cannot be read, a line each."""
    try:
        to_job(read_job_file(bad if isinstance(bad, str) else json.dumps(bad)))
    except BadInput as error:
        return [f"{fault.field}: {fault.message}" for fault in error.faults]
    return []


def texts() -> Iterator[tuple[str, str]]:
    """Every text that is held, with its name."""
    for example in EXAMPLES:
        made = plan_file(read_job_file(example.read_text(encoding="utf-8")))
        name = example.name.removesuffix(".job.json")
        yield f"{name}.plan.json", made.model_dump_json(indent=2)
        yield f"{name}.plan.txt", plan_text(made)
    for kind in ("job", "plan", "rack", "run"):
        yield f"{kind}.schema.json", json.dumps(schema(kind), indent=2)


def golden() -> dict[str, Any]:
    """Digests of the texts, and the faults of every bad job as they are."""
    digests = {name: sha256(text.encode()).hexdigest() for name, text in texts()}
    return {"texts": digests, "faults": {name: fault_lines(bad) for name, bad in BAD.items()}}


if __name__ == "__main__":
    if len(sys.argv) > 1:
        for name, text in texts():
            (Path(sys.argv[1]) / name).write_text(text, encoding="utf-8")
    else:
        FILE.write_text(json.dumps(golden(), indent=2) + "\n", encoding="utf-8")
