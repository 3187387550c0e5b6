"""What the models of the files find wrong, as faults that name their key and the mend."""

import re
from typing import Any, Final

from pydantic import ValidationError

from kelbrast.core.errors import MOST_FAULTS, Fault
from kelbrast.documents.common.fault_words import RULES


def faults_of(problem: ValidationError) -> list[Fault]:
    """Pydantic's findings as faults, each naming its key as `faces[0].found.depth_um`."""
    faults: dict[str, Fault] = {}
    # Of several findings on one key, a broken rule of ours says more than "must be a number".
    ours = ("value_error", *RULES)
    for error in sorted(problem.errors(include_url=False), key=lambda error: error["type"] not in ours):
        if len(faults) > 2 * MOST_FAULTS:
            break
        field = _written(error["loc"])
        context = error.get("ctx", {})
        said = _said(error["type"], context, error["msg"])
        faults.setdefault(field, Fault(field, said, code=error["type"], limit=_limit_of(context)))
    # A union tries every arm; where one arm got further into the value, the others only say that it is not theirs.
    return [fault for field, fault in faults.items() if not any(other.startswith(f"{field}.") for other in faults)]


_UNION_ARMS: Final = re.compile(r"^(float|int|DepthRange|str|function-.*|tuple\[.*|constrained-.*)$")


def _written(place: tuple[int | str, ...]) -> str:
    """`("faces", 0, "found", "depth_um", "float")` as `faces[0].found.depth_um`: the arms of a union are no keys."""
    written = ""
    for part in place:
        if isinstance(part, int):
            written += f"[{part}]"
        elif not _UNION_ARMS.match(part):
            written += f".{part}" if written else part
    return written


def _limit_of(context: dict[str, Any]) -> float | None:
    found = next((context[key] for key in ("gt", "ge", "lt", "le") if key in context), None)
    return float(found) if isinstance(found, int | float) else None


def _said(kind: str, context: dict[str, Any], message: str) -> str:
    """What is wrong, in the words of this program."""
    limit = next((f"{context[key]:g}" for key in ("gt", "ge", "lt", "le", "min_length", "max_length") if key in context), None)
    words = {
        "extra_forbidden": "is not a key of this file",
        "missing": "is missing",
        "greater_than": f"must be above {limit}",
        "greater_than_equal": f"must be at least {limit}",
        "less_than": f"must be below {limit}",
        "less_than_equal": f"must be at most {limit}",
        "float_type": "must be a number",
        "float_parsing": "must be a number",
        "finite_number": "must be a finite number",
        "int_type": "must be a whole number",
        "int_from_float": "must be a whole number",
        "int_parsing": "must be a whole number",
        "string_type": "must be text",
        "bool_type": "must be true or false",
        "dict_type": "must be an object with keys",
        "bool_parsing": "must be true or false",
        "list_type": "must be a list",
        "tuple_type": "must be a list of two",
        "string_too_short": "must not be empty",
        "string_too_long": f"must be at most {limit} characters long",
        "too_short": f"needs at least {limit}",
        "too_long": f"has more than the {limit} that are allowed, or than fit",
        "model_type": "must be an object with keys",
        "model_attributes_type": "must be an object with keys",
    }
    if kind == "literal_error":
        return f"must be one of {context['expected'].replace(' or ', ', ')}".replace("'", "")
    return words.get(kind, message.removeprefix("Value error, "))
