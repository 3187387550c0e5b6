"""Practice over HTTP: a question, its answer explained on the patch, progress kept per person."""

import pytest

from telling import told


def ask(client, person: str = "Ada"):
    return client.get("/api/practice/next", params={"person": person}).json()


def answer(client, asked, chosen: int, person: str = "Ada"):
    body = {key: asked[key] for key in ("kind", "difficulty", "seed")} | {"person": person, "chosen": chosen}
    return client.post("/api/practice/answer", json=body)


@pytest.mark.soak
def test_ten_questions_are_answered_explained_and_kept(client) -> None:
    pictures, said = [], []
    for _ in range(10):
        asked = ask(client)
        assert "right" not in asked
        right = answer(client, asked, 0).json()
        pictures += [name for name in (asked["picture"], right["beside"]) if name]
        said += [told(right["picture_words"])] if right["beside"] else []
        assert right["right"] == (right["answer"] == asked["options"][0])
        assert right["why"]
    assert pictures
    assert {client.get(f"/api/light/{name}.png").status_code for name in pictures} == {200}
    assert all("µm deep" in words for words in said)
    progress = client.get("/api/practice/progress", params={"person": "Ada"}).json()
    assert progress["answers"] == 10
    assert sum(week["answers"] for week in progress["weeks"]) == 10
    assert client.get("/api/practice/people").json() == ["Ada"]


def test_everybody_has_a_score_of_their_own(client) -> None:
    for _ in range(6):
        asked = ask(client, "Ben")
        right = answer(client, asked, 0, "Ben").json()
        assert right["rating"]
    assert client.get("/api/practice/progress", params={"person": "Ada"}).json()["answers"] == 0


def test_an_answer_that_there_is_not_is_refused(client) -> None:
    asked = ask(client)
    assert answer(client, asked, 9).json()["faults"][0]["field"] == "chosen"
    assert answer(client, {**asked, "difficulty": 1}, 0).json()["faults"][0]["field"] == "difficulty"
    assert client.get("/api/practice/next", params={"person": " "}).json()["faults"][0]["field"] == "person"
    assert client.get("/api/practice/progress", params={"person": "Ada"}).json()["answers"] == 0
