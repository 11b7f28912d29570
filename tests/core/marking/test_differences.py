"""What changed from one submission to the next."""

from typing import Any

from django.test import SimpleTestCase

from coatpeg.core.marking.differences import What, differences

COLUMNS = [{"key": "a", "title": "Crop"}, {"key": "b", "title": "Grams"}]


def evidence(pk: int, text: str = "", sha: str = "", title: str = "bed.jpg") -> dict[str, Any]:
    return {"id": pk, "text": text, "artefact": {"title": title, "sha256": sha, "link": ""} if sha else None}


def pocket(*lying: dict[str, Any], pk: int = 1) -> dict[str, Any]:
    return {"id": pk, "title": "Bed", "evidence": list(lying)}


def log(*rows: tuple[int, str, str]) -> dict[str, Any]:
    lines = [{"id": pk, "values": {"a": a, "b": b}} for pk, a, b in rows]
    return {"id": 2, "title": "Log", "evidence": [], "log": {"plan": {"columns": COLUMNS}, "rows": lines}}


class Differences(SimpleTestCase):
    def found(self, before: dict[str, Any], after: dict[str, Any]) -> list[Any]:
        return differences({"pockets": [before]}, {"pockets": [after]})

    def test_the_same_is_left_out(self) -> None:
        self.assertEqual(self.found(pocket(evidence(1, "So", "x")), pocket(evidence(1, "So", "x"))), [])
        self.assertEqual(self.found(log((7, "kale", "3")), log((7, "kale", "3"))), [])

    def test_words_word_by_word_and_counted(self) -> None:
        (one,) = self.found(pocket(evidence(1, "A seed needs water.")), pocket(evidence(1, "A seed needs warm soil.")))
        self.assertIs(one.what, What.WORDS)
        self.assertEqual("".join(part.text for part in one.parts if part.what != "gone"), "A seed needs warm soil.")
        self.assertEqual("".join(part.text for part in one.parts if part.what != "new"), "A seed needs water.")
        self.assertEqual(one.words, (2, 1))

    def test_what_came_what_went_and_what_lies_in_its_place(self) -> None:
        found = self.found(
            pocket(evidence(1, "", "x"), evidence(2, "", "y", "old.jpg")),
            pocket(evidence(3, "", "z", "new.jpg"), evidence(1, "", "w")),
        )
        self.assertEqual(
            [(one.what.value, one.piece) for one in found],
            [("new", "new.jpg"), ("replaced", "bed.jpg"), ("gone", "old.jpg")],
        )

    def test_rows_cell_by_cell(self) -> None:
        found = self.found(log((7, "kale", "30"), (8, "leek", "5")), log((7, "kale", "40"), (9, "bean", "2")))
        self.assertEqual([(one.what.value, one.row) for one in found], [("row", 7), ("new", 9), ("gone", 8)])
        self.assertEqual(found[0].cells, (("Grams", "30", "40"),))

    def test_a_pocket_that_was_not_collected_before_is_new_as_a_whole(self) -> None:
        found = differences({"pockets": []}, {"pockets": [pocket(evidence(1, "So")), log((7, "kale", "3"))]})
        self.assertEqual([one.what.value for one in found], ["new", "new"])
