"""What a sentence of an answer says, metric unless told otherwise."""

from typing import Any

from kelbrast.core.wording import System, tell
from kelbrast.documents.common.sentences import SentenceFile, to_sentence


def told(answer: dict[str, Any], system: System = "metric") -> str:
    return tell(to_sentence(SentenceFile.model_validate(answer)), system)
