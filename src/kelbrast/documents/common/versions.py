"""Versions of stored documents, and the migration of each to the next.

A new key with a default needs nothing here. When a form changes so that documents of the old one cannot be read, the form gets
the next number and one function from the old to the new is added to `STEPS`; nothing that was kept is ever rewritten.
"""

from collections.abc import Callable, Mapping
from typing import Any, Final

Document = Mapping[str, Any]
EVENT: Final = "event/1"  # of what happens in a run; a job says its form itself
# From the form of a document to the next form, and how it gets there.
STEPS: Final[dict[str, tuple[str, Callable[[Document], Document]]]] = {
    "job/1": ("job/2", lambda job: {**job, "kelbrast": "job/2"}),  # its faces get ids, see `face_ids`
}


def up_to_date(document: Document, form: Any, *, steps: Mapping[str, Any] = STEPS) -> dict[str, Any]:
    """The document in the newest form of its kind. A form that is not known is left to the reader, who says so.

    >>> steps = {"job/0": ("job/1", lambda job: {"kelbrast": "job/1", "title": job["name"]})}
    >>> up_to_date({"kelbrast": "job/0", "name": "Collar"}, "job/0", steps=steps)
    {'kelbrast': 'job/1', 'title': 'Collar'}
    """
    while isinstance(form, str) and form in steps:
        form, step = steps[form]
        document = step(document)
    return dict(document)


def forms_read_as(newest: str, *, steps: Mapping[str, Any] = STEPS) -> list[str]:
    """Return every form that is read, the oldest first and the newest of its kind last.

    >>> forms_read_as("job/2")
    ['job/1', 'job/2']
    """
    kind = newest.split("/")[0]
    return sorted([newest, *(form for form in steps if form.split("/")[0] == kind)])
