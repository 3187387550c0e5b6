"""Parts that are worked to size, as they are kept."""

import pytest

from kelbrast.app.jobs import Jobs
from kelbrast.app.sizing import Sizings
from kelbrast.core.errors import BadInput, Conflict, NotFound
from kelbrast.demo.workshop import demo_sizes
from kelbrast.documents.size.format import SizeFile, check_size_file


@pytest.fixture
def sizings(tmp_path):
    jobs = Jobs.open(tmp_path / "sizes.sqlite")
    yield jobs.sizings
    jobs.close()


def empty_of(file: SizeFile) -> SizeFile:
    return check_size_file({**file.model_dump(mode="json", by_alias=True, exclude_none=True), "rounds": [{"readings": []}]})


@pytest.mark.parametrize("file", demo_sizes(), ids=lambda file: file.title)
def test_a_part_comes_back_as_it_was_kept(sizings: Sizings, file: SizeFile) -> None:
    kept = sizings.add(file)
    assert sizings.get(kept.id).size == file
    assert kept.answer is not None
    assert kept.places == kept.answer.places
    assert [size.id for size in sizings.page().sizes] == [kept.id]


def test_before_the_first_reading_it_says_where_to_read(sizings: Sizings) -> None:
    kept = sizings.add(empty_of(demo_sizes()[0]))
    assert kept.answer is None
    assert len(kept.places) == 12
    assert {round(place.z_mm, 3) for place in kept.places} == {0.0, -10.5, 10.5}
    assert {round(place.phi_deg) for place in kept.places} == {0, 45, 90, 135}


def test_of_two_changes_of_one_revision_only_one_is_taken(sizings: Sizings) -> None:
    file = demo_sizes()[0]
    kept = sizings.add(empty_of(file))
    changed = sizings.change(kept.id, file, revision=kept.revision)
    assert (changed.revision, changed.size) == (kept.revision + 1, file)
    with pytest.raises(Conflict):
        sizings.change(kept.id, empty_of(file), revision=kept.revision)
    assert sizings.get(kept.id).size == file


def test_what_does_not_fit_is_not_kept(sizings: Sizings) -> None:
    file = demo_sizes()[0]
    kept = sizings.add(file)
    wrong = check_size_file({**file.model_dump(mode="json", by_alias=True, exclude_none=True), "material": "cheese"})
    for attempt in (lambda: sizings.add(wrong), lambda: sizings.change(kept.id, wrong, revision=1)):
        with pytest.raises(BadInput):
            attempt()
    assert sizings.get(kept.id).size == file


def test_a_part_that_is_not_there(sizings: Sizings) -> None:
    kept = sizings.add(demo_sizes()[0])
    sizings.remove(kept.id)
    for attempt in (sizings.get, sizings.remove, lambda gone: sizings.change(gone, demo_sizes()[0], revision=1)):
        with pytest.raises(NotFound):
            attempt(kept.id)


def test_three_parts_of_the_shop_teach_the_rate_of_the_next(sizings: Sizings) -> None:
    file = demo_sizes()[0].model_dump(mode="json", by_alias=True, exclude_none=True)
    read = [{"mm": 13.984, "z_mm": z, "phi_deg": phi} for z in (-10, 0, 10) for phi in (0, 45, 90, 135)]

    def later(size: float) -> list[dict[str, float]]:
        return [{**one, "mm": size} for one in read]

    fresh = check_size_file({**file, "rounds": [{"readings": read}]})
    quick = check_size_file(
        {**file, "rounds": [{"readings": read}, *({"worked_s": 60, "readings": later(13.984 + 0.007 * k)} for k in (1, 2))]}
    )
    slow_steel = check_size_file({**fresh.model_dump(mode="json", by_alias=True, exclude_none=True), "material": "mild-steel"})
    before = sizings.add(fresh)
    assert before.answer is not None
    for _ in range(2):
        sizings.add(quick)
    assert sizings.get(before.id).answer == before.answer
    sizings.add(quick)
    after, other = sizings.get(before.id).answer, sizings.add(slow_steel).answer
    assert after is not None
    assert other is not None
    assert (after.rate_um_min.yours, other.rate_um_min.yours) == (True, False)
    assert after.rate_um_min.likely == pytest.approx(7.0, rel=0.05)
    assert after.rate_um_min.high / after.rate_um_min.low < before.answer.rate_um_min.high / before.answer.rate_um_min.low
