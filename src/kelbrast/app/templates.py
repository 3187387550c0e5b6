"""Own operations of a job, kept under a name for the next such part."""

from typing import Any

from sqlalchemy import Engine

from kelbrast.app.readable import Unreadable, readable
from kelbrast.core.errors import BadInput, NotFound
from kelbrast.documents.job.format import OwnOperationFile
from kelbrast.storage import shop as store
from kelbrast.storage.sessions import reading, writing

_TEMPLATES = "operation-templates"
_MOST = 200


class Templates:
    """The templates of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> dict[str, list[OwnOperationFile]]:
        """Every template by its name."""
        return dict(self._read()[0])

    def unreadable(self) -> list[Unreadable]:
        """Templates that this version cannot read."""
        return self._read()[1]

    def _read(self) -> tuple[list[tuple[str, list[OwnOperationFile]]], list[Unreadable]]:
        def read(one: tuple[str, Any]) -> tuple[str, list[OwnOperationFile]]:
            return one[0], [OwnOperationFile.model_validate(told) for told in one[1]]

        with reading(self._engine) as session:
            kept = store.get_setting(session, _TEMPLATES)
        return readable(sorted(kept.items()), read, lambda one: (0, one[0]))

    def keep(self, name: str, operations: list[OwnOperationFile]) -> None:
        """Keep these operations under a name; one of that name is replaced.

        Raises:
            BadInput: nothing to keep, or too many.
        """
        if not operations:
            raise BadInput.one("operations", "there is nothing to keep: add an operation first")
        with writing(self._engine) as session:
            kept = dict(store.get_setting(session, _TEMPLATES))
            if len(kept) >= _MOST and name not in kept:
                raise BadInput.one("name", f"there are {_MOST} templates already; forget one first")
            told = [operation.model_dump(mode="json") for operation in operations]
            store.put_setting(session, _TEMPLATES, {**kept, name: told})

    def forget(self, name: str) -> None:
        """Forget one.

        Raises:
            NotFound: none of this name.
        """
        with writing(self._engine) as session:
            kept = dict(store.get_setting(session, _TEMPLATES))
            if name not in kept:
                raise NotFound("template", name)
            del kept[name]
            store.put_setting(session, _TEMPLATES, kept)
