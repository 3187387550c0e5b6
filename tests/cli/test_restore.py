"""A computer that died is replaced: the copy is put back on a new one, after a look at what that would change."""

from pathlib import Path

import pytest

from commanding import run
from demo_workshop import demo_workshop
from kelbrast.app.jobs import Jobs
from kelbrast.storage.copies import back_up


@pytest.fixture
def copy(tmp_path: Path) -> Path:
    demo_workshop(tmp_path / "old.sqlite")
    back_up(tmp_path / "old.sqlite", tmp_path / "copy.sqlite")
    return tmp_path / "copy.sqlite"


def test_on_a_new_computer_everything_is_there_again(copy: Path, tmp_path: Path) -> None:
    new = tmp_path / "new" / "kelbrast.sqlite"
    looked = run("restore", str(copy), "--database", str(new))
    assert looked.returncode == 0
    assert "jobs: 12 come back, 0 go, 0 become as they were" in looked.stdout
    assert "Nothing was changed yet" in looked.stdout
    assert Jobs.open(new).search()[1] == []
    done = run("restore", str(copy), "--database", str(new), "--yes")
    assert done.returncode == 0
    assert "Restored." in done.stdout
    assert {one.title for one in Jobs.open(new).search()[1]} == {
        one.title for one in Jobs.open(tmp_path / "old.sqlite").search()[1]
    }
    assert "Nothing would change." in run("restore", str(copy), "--database", str(new)).stdout


def test_what_is_no_backup_is_refused(tmp_path: Path) -> None:
    refused = run("restore", str(tmp_path / "nothing.sqlite"), "--database", str(tmp_path / "new.sqlite"))
    assert refused.returncode == 2
    assert "there is no file" in refused.stderr
