"""JSON Schemas of the open files, from the models that read and write them."""

from typing import Any

from kelbrast.core.errors import NotFound
from kelbrast.exchange.job_file import JobFile
from kelbrast.exchange.plan_file import PlanFile
from kelbrast.exchange.rack_file import RackFile
from kelbrast.exchange.run_file import RunFile
from kelbrast.exchange.schema_rules import with_rules


def schema(kind: str) -> dict[str, Any]:
    """The schema of "job", "plan", "rack" or "run".

    Raises:
        NotFound: another kind.
    """
    if kind == "job":
        found = with_rules(JobFile.model_json_schema(mode="validation"))
        found["required"] = sorted({*found.get("required", []), "kelbrast"})
        return {"$schema": "https://json-schema.org/draft/2020-12/schema", **found}
    if kind == "rack":
        found = RackFile.model_json_schema(mode="validation")
        found["required"] = sorted({*found.get("required", []), "kelbrast"})
        return {"$schema": "https://json-schema.org/draft/2020-12/schema", **found}
    if kind in ("plan", "run"):
        model = PlanFile if kind == "plan" else RunFile
        return {"$schema": "https://json-schema.org/draft/2020-12/schema", **model.model_json_schema(mode="serialization")}
    raise NotFound("schema", kind, ["job", "plan", "rack", "run"])
