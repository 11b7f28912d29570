"""What the browser's library writes is read here as it means it: against yjs itself, run by Node.

Source: yjs 13.6.33 as it is installed with the front end. Each random history is played on three documents of it; the
words of each passage, and who wrote each letter, are as it has them.
"""

from __future__ import annotations

import base64
import json
import subprocess
from pathlib import Path

from django.test import SimpleTestCase
from pycrdt import Doc, XmlFragment

from coatpeg.core.sharing import accepting, blocks
from coatpeg.core.sharing.order import passages

FRONT_END = Path(__file__).parents[2] / "frontend"
PLAY = """
import * as Y from "yjs";
let seed = Number(process.argv[1]);
const next = (most) => { seed = (seed * 1103515245 + 12345) % 2147483648; return Math.floor((seed / 2147483648) * most); };
const docs = [0, 1, 2].map((at) => { const doc = new Y.Doc(); doc.clientID = 1000 + 7 * at + next(5); return doc; });
const sent = [];
docs.forEach((doc, at) => doc.on("update", (update, origin) => { if (origin === null) sent.push([at, Buffer.from(update).toString("base64")]); }));
for (let step = 0; step < 150; step += 1) {
  const at = next(3);
  const doc = docs[at];
  const page = doc.getXmlFragment("page");
  const what = next(10);
  if (page.length === 0 || what < 2) {
    const passage = new Y.XmlElement("paragraph");
    passage.insert(0, [new Y.XmlText("")]);
    page.insert(next(page.length + 1), [passage]);
  } else {
    const text = page.get(next(page.length)).get(0);
    const from = next(text.length + 1);
    if (what < 7) text.insert(from, ["ab", "c ", "dé", "f."][next(4)]);
    else if (what < 9 && from < text.length) text.delete(from, 1 + next(text.length - from));
    else if (from < text.length) text.format(from, 1, { bold: {} });
  }
  if (next(4) === 0) {
    const other = docs[next(3)];
    Y.applyUpdate(other, Y.encodeStateAsUpdate(doc, Y.encodeStateVector(other)), "other");
  }
}
for (const one of docs) for (const other of docs) Y.applyUpdate(one, Y.encodeStateAsUpdate(other, Y.encodeStateVector(one)), "other");
const letters = (text) => {
  const found = [];
  for (let item = text._start; item; item = item.right)
    if (!item.deleted && item.content instanceof Y.ContentString) for (const letter of item.content.str) found.push([letter, item.id.client]);
  return found;
};
const page = docs[0].getXmlFragment("page");
console.log(JSON.stringify({
  whole: Buffer.from(Y.encodeStateAsUpdate(docs[0])).toString("base64"),
  passages: page.toArray().map((one) => letters(one.get(0))),
  clients: docs.map((doc) => doc.clientID),
  sent,
}));
"""


def played(seed: int) -> dict[str, object]:
    done = subprocess.run(
        ["node", "--input-type=module", "-e", PLAY, str(seed)],
        cwd=FRONT_END,
        capture_output=True,
        text=True,
        check=True,
    )
    found: dict[str, object] = json.loads(done.stdout)
    return found


class Yjs(SimpleTestCase):
    def test_the_words_and_their_writers_are_as_yjs_has_them(self) -> None:
        for seed in range(1, 13):
            told = played(seed)
            update = blocks.read(base64.b64decode(str(told["whole"])))
            found = [[[letter, run.client] for run in passage for letter in run.words] for passage in passages(update)]
            with self.subTest(seed):
                self.assertEqual(found, told["passages"])

    def test_every_update_that_it_sends_is_taken_in_order_and_y_crdt_makes_the_same_of_them(self) -> None:
        told = played(99)
        clients = told["clients"]
        assert isinstance(clients, list)
        clocks: dict[int, int] = {}
        kinds = accepting.Kinds()
        doc: Doc[object] = Doc()
        doc.get("page", type=XmlFragment)
        for at, data in told["sent"]:  # type: ignore[attr-defined]  # a list of pairs
            raw = base64.b64decode(data)
            taken = accepting.accept(blocks.read(raw), clients[at], clocks, kinds)
            clocks[clients[at]] = taken.end
            doc.apply_update(raw)
        words = [
            "".join(piece for piece, _ in one.children[0].diff()) for one in doc.get("page", type=XmlFragment).children
        ]
        self.assertEqual(words, ["".join(letter for letter, _ in one) for one in told["passages"]])  # type: ignore[attr-defined]
