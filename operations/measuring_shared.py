"""What is measured of pages that are filled together: thirty who write for a minute through the served application."""

from __future__ import annotations

import http.client
import json
import os
import random
import threading
import time
from base64 import b64decode, b64encode
from pathlib import Path
from statistics import quantiles
from typing import Any

from operations.loading import signed_in

WRITERS, SECONDS, A_WORD = 30, 60, 0.5
WORDS = [
    "the",
    "rain",
    "sheet",
    "can",
    "jam",
    "and",
    "half",
    "of",
    "the",
    "harbour",
    "stays",
    "dry",
    "so",
    "we",
    "need",
    "a",
    "hook",
]


def cpu(pids: list[int]) -> float:
    """Seconds of a core that processes have used."""
    spent = 0
    for pid in pids:
        fields = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
        spent += int(fields[11]) + int(fields[12])
    return spent / os.sysconf("SC_CLK_TCK")


class Writer:
    """A device with a line of its own: it writes a word every half a second and exchanges when it is told to."""

    def __init__(self, port: int, saver: dict[str, Any], pocket: int) -> None:
        from pycrdt import Doc, XmlElement, XmlFragment, XmlText  # noqa: PLC0415 - of the application's packages

        self.line = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
        self.headers = {**signed_in(saver["cookie"]), "Content-Type": "application/json"}
        page = self.call(f"/api/portfolios/{saver['portfolio']}/pockets/{pocket}/shared", {})
        self.page, self.client, self.number = page["id"], page["client"], page["number"]
        self.doc: Any = Doc(client_id=self.client)
        self.root = self.doc.get("page", type=XmlFragment)
        if page["number"]:
            self.doc.apply_update(b64decode(page["data"]))
        self.sent = self.doc.get_state()
        self.mine = XmlText("")
        self.root.children.append(XmlElement("paragraph", {}, [self.mine]))
        self.clock = 2
        """Ticks of its own: the passage and its text are the first two."""
        self.typed: list[tuple[int, float]] = []
        self.came: list[tuple[int, int, int, float]] = []
        self.answers: list[float] = []

    def call(self, address: str, body: dict[str, Any]) -> Any:
        """Send something and get the answer."""
        self.line.request("POST", address, body=json.dumps(body), headers=self.headers)
        answer = self.line.getresponse()
        told = answer.read()
        assert answer.status == 200, (answer.status, told[:300])
        return json.loads(told)

    def write(self, dealer: random.Random) -> None:
        """Write a word at the end of the own passage."""
        word = f"{dealer.choice(WORDS)} "
        self.mine.insert(len(self.mine), word)
        self.clock += len(word)
        self.typed.append((self.clock, time.perf_counter()))

    def exchange(self) -> int:
        """One exchange; returns after how many milliseconds the next is."""
        update = self.doc.get_update(self.sent)
        begun = time.perf_counter()
        body = {"after": self.number, "client": self.client, "update": b64encode(update).decode()}
        came = self.call(f"/api/shared/{self.page}/exchange", body if len(update) > 2 else {"after": self.number})
        now = time.perf_counter()
        self.answers.append(now - begun)
        for one in came["updates"]:
            if one["client"] != self.client:
                self.came.append((one["client"], one["start"], one["end"], now))
        for data in [came["data"], *(one["data"] for one in came["updates"])]:
            if data:
                self.doc.apply_update(b64decode(data))
        self.number, self.sent = came["number"], self.doc.get_state()
        return int(came["apart"])

    @property
    def text(self) -> str:
        """The page as this device has it."""
        return str(self.root)


def thirty_write(port: int, savers: list[dict[str, Any]], pocket: int, pids: list[int]) -> dict[str, float]:
    """Seconds from a key to the others' screens (half and 95 %), the application's share of a core, equal pages."""
    writers = [Writer(port, one, pocket) for one in savers[:WRITERS]]
    over = time.perf_counter() + SECONDS

    def run(writer: Writer, place: int) -> None:
        dealer = random.Random(place)
        word, exchange = time.perf_counter() + dealer.random() * A_WORD, time.perf_counter() + dealer.random() * 0.6
        while (now := time.perf_counter()) < over:
            if now >= word:
                writer.write(dealer)
                word += A_WORD
            if now >= exchange:
                exchange = time.perf_counter() + writer.exchange() / 1000
            time.sleep(max(min(word, exchange) - time.perf_counter(), 0))

    before, begun = cpu(pids), time.perf_counter()
    threads = [threading.Thread(target=run, args=(one, place)) for place, one in enumerate(writers)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    share = (cpu(pids) - before) / (time.perf_counter() - begun)
    for _ in range(2):
        for writer in writers:
            writer.exchange()
    typed = {writer.client: writer.typed for writer in writers}
    waits = [
        now - at
        for writer in writers
        for client, start, end, now in writer.came
        for clock, at in typed[client]
        if start < clock <= end and at <= now
    ]
    parts, answers = quantiles(waits, n=100), quantiles([one for each in writers for one in each.answers], n=100)
    return {
        "writers": len(writers),
        "words": sum(len(writer.typed) for writer in writers),
        "half": parts[49],
        "most": parts[94],
        "answer": answers[49],
        "share": share,
        "equal": len({writer.text for writer in writers}) == 1,
    }


TITLE = "Bench page"
UPDATES, OVER = 20_000, 5 * 60 * 60
"""How many updates a page has that is opened, and within how many seconds they came."""
OPENINGS = 5


def page_for(group_id: int) -> int:
    """A pocket that the class fills together, for the measurement; ``taken_away`` ends it."""
    from coatpeg.outlines.models import Pocket, Section  # noqa: PLC0415 - needs settings

    section = Section.objects.filter(template__group_id=group_id, repeats=False)[0]
    made = Pocket.objects.create(
        section=section, title=TITLE, kind="page", shared="class", own_part=True, counts=False, position=99
    )
    return made.pk


def taken_away() -> None:
    """The pocket of ``page_for`` gone, with all that was written in it."""
    from coatpeg.outlines.models import Pocket  # noqa: PLC0415 - needs settings
    from coatpeg.portfolios.models import Evidence  # noqa: PLC0415

    Evidence.objects.filter(pocket__title=TITLE).delete()
    Pocket.objects.filter(title=TITLE).delete()


def opened() -> dict[str, Any]:
    """Seconds in which a page opens that came to be by 20,000 updates of thirty writers; then rolled back."""
    from datetime import timedelta  # noqa: PLC0415
    from statistics import median  # noqa: PLC0415

    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.utils import timezone  # noqa: PLC0415
    from pycrdt import Doc, XmlElement, XmlFragment, XmlText  # noqa: PLC0415

    from coatpeg.outlines.models import Pocket  # noqa: PLC0415
    from coatpeg.portfolios.models import Portfolio  # noqa: PLC0415
    from coatpeg.sharing import exchanging, finding, settling  # noqa: PLC0415
    from coatpeg.sharing.models import SharedPage, SharedUpdate  # noqa: PLC0415

    with transaction.atomic():
        books = Portfolio.objects.filter(enrolment__group__kind="class", enrolment__last=None).order_by("pk")
        books = books.select_related("enrolment__person", "enrolment__group")[:WRITERS]
        now, mine = timezone.now(), books[0]
        pocket = Pocket.objects.get(pk=page_for(mine.enrolment.group_id))
        page = finding.page_of(pocket, mine.enrolment, now)
        dealer, rows = random.Random(20_000), []
        devices = []
        for client, book in enumerate(books, start=1):
            doc: Any = Doc(client_id=client)
            text = XmlText("")
            doc.get("page", type=XmlFragment).children.append(XmlElement("paragraph", {}, [text]))
            devices.append([doc, text, book.enrolment.person_id, 0, b"\x00"])
        for number in range(1, UPDATES + 1):
            device = devices[number % len(devices)]
            doc, text, person, clock, state = device
            word = f"{dealer.choice(WORDS)} "
            # Here and there, so that the page is of many pieces.
            text.insert(dealer.randint(0, len(text)), word)
            end = (clock or 2) + len(word)
            at = now - timedelta(seconds=OVER * (1 - number / UPDATES))
            rows.append(
                SharedUpdate(
                    page=page,
                    number=number,
                    client=doc.client_id,
                    start=clock,
                    end=end,
                    person_id=person,
                    at=at,
                    data=doc.get_update(state),
                )
            )
            device[3:] = [end, doc.get_state()]
        SharedUpdate.objects.bulk_create(rows, batch_size=1_000)
        SharedPage.objects.filter(pk=page.pk).update(number=UPDATES)
        begun = time.perf_counter()
        settling.settle(page.pk, now)
        settled = time.perf_counter() - begun
        spent = []
        for _ in range(OPENINGS):
            begun = time.perf_counter()
            found = exchanging.opened(mine.enrolment.person, finding.with_pocket(page.pk), now)
            spent.append(time.perf_counter() - begun)
        transaction.set_rollback(True)
    return {"seconds": median(spent), "settled": settled, "bytes": len(found["data"]), "spans": len(found["spans"])}
