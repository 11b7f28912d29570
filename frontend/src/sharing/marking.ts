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

/** Mark the words of a person (0: nobody's) and make room for the names of each passage. */
export function mark(editor: Editor, found: Piece[][], person: number): void {
  const { doc, tr } = editor.state;
  const marks: Decoration[] = [];
  let at = 0;
  found.forEach((pieces, place) => {
    const size = doc.child(place).nodeSize;
    const rows = Math.min(writersOf(pieces).length, 3);
    marks.push(Decoration.node(at, at + size, { class: `passage rows-${rows}` }));
    for (const piece of pieces) {
      if (piece.person === person) marks.push(Decoration.inline(piece.from, piece.to, { class: "bg-today" }));
    }
    at += size;
  });
  editor.view.dispatch(tr.setMeta(KEY, DecorationSet.create(doc, marks)).setMeta("addToHistory", false));
}
