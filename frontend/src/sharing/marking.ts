/** Marks on the words of an editor that are no part of them: whose they are, and room for the names beside them. */
import { Extension } from "@tiptap/core";
import type { Editor } from "@tiptap/core";
import { Plugin, PluginKey } from "@tiptap/pm/state";
import { Decoration, DecorationSet } from "@tiptap/pm/view";
import type { Piece } from "./whose";
import { writersOf } from "./whose";

const KEY = new PluginKey<DecorationSet>("whose");

export const Whose = Extension.create({
  name: "whose",
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key: KEY,
      state: {
        init: () => DecorationSet.empty,
        apply: (change, marks) => (change.getMeta(KEY) as DecorationSet | undefined) ?? marks.map(change.mapping, change.doc),
      },
      props: { decorations: (state) => KEY.getState(state) },
    }),
  ],
});

/** The words of a person that stand together, whenever they were written. */
function stretches(pieces: Piece[], person: number): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = [];
  for (const piece of pieces) {
    if (piece.person !== person) continue;
    const last = found.at(-1);
    if (last?.to === piece.from) last.to = piece.to;
    else found.push({ from: piece.from, to: piece.to });
  }
  return found;
}

/** Mark the words of a person (0: nobody's) and make room for the names of each passage. */
export function mark(editor: Editor, found: Piece[][], person: number): void {
  const { doc, tr } = editor.state;
  const marks: Decoration[] = [];
  let at = 0;
  found.forEach((pieces, place) => {
    const size = doc.child(place).nodeSize;
    const rows = Math.min(writersOf(pieces).length, 3);
    marks.push(Decoration.node(at, at + size, { class: `passage rows-${rows}` }));
    for (const { from, to } of stretches(pieces, person)) marks.push(Decoration.inline(from, to, { class: "bg-today" }));
    at += size;
  });
  editor.view.dispatch(tr.setMeta(KEY, DecorationSet.create(doc, marks)).setMeta("addToHistory", false));
}
