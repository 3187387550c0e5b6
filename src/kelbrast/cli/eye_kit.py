"""The kit of the eye on the command line: how often it is right on pairs of photos with known truth."""

import json
from dataclasses import asdict
from pathlib import Path
from typing import Annotated

import typer

from kelbrast.cli.output import Format, refuse_written, say, write_new
from kelbrast.core.vision.agreement import Rightness

_LINES = {
    "told": "faces with old marks told: seen, or look again",
    "missed": "faces with old marks called clean: none seen",
    "false": "clean faces called marked: seen",
    "passed": "clean faces that pass: none seen",
    "refused": "pairs of which it said nothing",
}


def eye(
    folder: Annotated[Path, typer.Argument(metavar="FOLDER", help="with pairs.csv and two photos for each of its rows")],
    to: Annotated[
        Path | None, typer.Option("--to", help="write the answers here as CSV, without names, photos, places or days")
    ] = None,
    format: Annotated[Format, typer.Option("--format", help="text to read, json to script")] = Format.text,
) -> None:
    """Score the eye on pairs of photos of which it is known whether old marks are left."""
    from kelbrast.app.eye_kit import JudgedPair, judged_pairs, pairs_in, score_of
    from kelbrast.documents.run.eye_pairs import anonymous_csv

    def tell(one: JudgedPair) -> None:
        if format is Format.text:
            truth = "old marks" if one.pair.old_marks else "clean"
            say(f"{one.pair.pair}: {truth}; {' '.join(filter(None, (one.said.said, one.said.why, one.said.doubts)))}")

    if to is not None:
        refuse_written(to)
    judged = judged_pairs(pairs_in(folder), tell)
    if to is not None:
        write_new(to, anonymous_csv([one.said for one in judged]).encode())
    score = {name: getattr(score_of(judged), name) for name in _LINES}
    if format is Format.json:
        return say(json.dumps({name: asdict(one) for name, one in score.items()}))
    for name, says in _LINES.items():
        say(f"{says}: {_share(score[name])}")
    return None


def _share(one: Rightness) -> str:
    if not one.of:
        return "none to tell by"
    return f"{one.right} of {one.of} (95 %: {max(0, one.low):.0%} to {one.high:.0%})"
