"""What a light check turned out to be, from what happened after it in its run."""

from dataclasses import dataclass

from kelbrast.core.bench.run import Run


@dataclass(frozen=True, slots=True)
class LightCheck:
    """When and where a light check was made: after the event `after`, at a stage (face, route, step) of a piece."""

    after: int
    piece: int
    stage: tuple[str, int, int]


@dataclass(frozen=True, slots=True)
class TurnedOut:
    """Whether the person said at the check that old marks are left, and whether there were; None while nobody knows."""

    person: bool | None
    left: bool | None


def turned_out(run: Run, check: LightCheck) -> TurnedOut:
    """What the person said next at that stage, and what came of it.

    They look under the lamp, so what they see is there: "keep going" and "found a deep one" say that marks were left. "Old
    marks gone" is right if nobody went back on that face of the piece later on and the run came out as wanted.
    """
    later = [event for event in run.standing if event.number > check.after]
    said = next(
        (
            event.kind
            for event in later
            if event.piece == check.piece and event.stage == check.stage and event.kind in ("gone", "more", "back", "accepted")
        ),
        None,
    )
    if said is None:
        return TurnedOut(None, None)
    if said != "gone":
        return TurnedOut(True, True)
    on_face = [event for event in later if event.piece == check.piece and event.stage and event.stage[0] == check.stage[0]]
    if any(event.kind in ("back", "accepted") for event in on_face):
        return TurnedOut(False, True)
    return TurnedOut(False, False if run.status == "finished" and run.well else None)
