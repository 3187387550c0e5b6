"""JSON Schemas of the open files, from the models that read and write them."""

from typing import Any

from kelbrast.core.errors import NotFound
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.schema_rules import with_rules
from kelbrast.documents.own.format import OwnFile
from kelbrast.documents.plan.format import PlanFile
from kelbrast.documents.rack.format import RackFile
from kelbrast.documents.run.format import RunFile


def schema(kind: str) -> dict[str, Any]:
    """The schema of "job", "plan", "rack", "own" or "run".

    Raises:
        NotFound: another kind.
    """
    if kind == "job":
        found = with_rules(JobFile.model_json_schema(mode="validation"))
        found["required"] = sorted({*found.get("required", []), "kelbrast"})
        return {"$schema": "https://json-schema.org/draft/2020-12/schema", **found}
    if kind in ("rack", "own"):
        found = (RackFile if kind == "rack" else OwnFile).model_json_schema(mode="validation")
        found["required"] = sorted({*found.get("required", []), "kelbrast"})
        return {"$schema": "https://json-schema.org/draft/2020-12/schema", **found}
    if kind in ("plan", "run"):
        model = PlanFile if kind == "plan" else RunFile
        return {"$schema": "https://json-schema.org/draft/2020-12/schema", **model.model_json_schema(mode="serialization")}
    raise NotFound("schema", kind, ["job", "plan", "rack", "own", "run"])
