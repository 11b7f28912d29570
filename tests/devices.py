"""A device that writes on a shared page through the real protocol: pycrdt in the place of the browser's Yjs."""

from __future__ import annotations

from base64 import b64decode, b64encode
from typing import Any

from pycrdt import Doc, XmlElement, XmlFragment, XmlText

from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.models import Portfolio
from tests.api.case import ApiCase


def new_text(words: str = "") -> XmlElement:
    return XmlElement("paragraph", {}, [XmlText(words)])


class Device:
    """One student's device with a page open."""

    def __init__(self, test: ApiCase, book: Portfolio, pocket: Pocket) -> None:
        self.test, self.person = test, book.enrolment.person
        self.page = test.ok(self.person, "POST", f"/portfolios/{book.pk}/pockets/{pocket.pk}/shared")
        self.doc: Doc[Any] = Doc(client_id=self.page["client"])
        self.root = self.doc.get("page", type=XmlFragment)
        self.doc.apply_update(b64decode(self.page["data"])) if self.page["number"] else None
        self.sent, self.after = self.doc.get_state(), self.page["number"]

    @property
    def address(self) -> str:
        return f"/shared/{self.page['id']}"

    def write(self, words: str, passage: int | None = None, at: int | None = None) -> None:
        """A passage of its own at the end, or words into one that is there."""
        with self.doc.transaction():
            if passage is None:
                self.root.children.append(new_text(words))
            else:
                text = self.root.children[passage].children[0]
                text.insert(len(text) if at is None else at, words)

    def cut(self, passage: int, start: int, end: int) -> None:
        del self.root.children[passage].children[0][start:end]

    def update(self) -> bytes:
        """What was written here since the last exchange that was answered."""
        return self.doc.get_update(self.sent)

    def body(self, data: bytes | None = None) -> dict[str, Any]:
        update = self.update() if data is None else data
        return {"after": self.after, "client": self.page["client"], "update": b64encode(update).decode()}

    def exchange(self) -> Any:
        """Send what was written and take what came, and exchange once more to be told of what was sent itself."""
        answer = self.test.ok(self.person, "POST", f"{self.address}/exchange", self.body())
        self.take(answer)
        return answer

    def take(self, answer: Any) -> None:
        for data in [answer["data"], *(one["data"] for one in answer["updates"])]:
            if data:
                self.doc.apply_update(b64decode(data))
        self.after, self.sent = answer["number"], self.doc.get_state()

    @property
    def words(self) -> list[str]:
        return [str(one.children[0]) for one in self.root.children]
