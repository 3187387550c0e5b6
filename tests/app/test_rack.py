"""The rack is read again when anything on it has changed, wherever it was changed."""

from pathlib import Path

from kelbrast.app.jobs import Jobs
from kelbrast.documents.rack.format import ItemEventFile, ItemFile


def test_what_another_program_changes_is_seen(tmp_path: Path) -> None:
    here, there = (Jobs.open(tmp_path / "kept.sqlite").rack for _ in range(2))
    assert here.items() == there.items() == []
    paper = there.add([ItemFile(what="paper-p240", count=3)])[0]
    assert [kept.item.have for kept in here.items()] == [3]
    there.change(paper.id, paper.file.model_copy(update={"count": 8}), revision=1)
    assert [kept.item.have for kept in here.items()] == [8]
    there.note(paper.id, [ItemEventFile(kind="retired")])
    assert [len(kept.at) for kept in here.items()] == [1]
    there.remove(paper.id)
    assert here.items() == []


def test_what_is_handed_out_is_nobodys_to_change(tmp_path: Path) -> None:
    rack = Jobs.open(tmp_path / "kept.sqlite").rack
    rack.add([ItemFile(what="paper-p240")])
    rack.items().clear()
    assert len(rack.items()) == 1
