/** The editor of a page; loaded when a page is opened. */
import { Editor as TipTap } from "@tiptap/core";
import Image from "@tiptap/extension-image";
import { EditorContent, useEditor, useEditorState } from "@tiptap/react";
import type { Editor } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { Bold, Heading2, Heading3, ImagePlus, Italic, List, ListOrdered, Quote, Redo2, Sigma, Table2, Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { AltDialog } from "./AltDialog";
import { EDITOR } from "./editorTexts";
import { FormulaDialog } from "./FormulaDialog";
import { FormulaNode } from "./formulaNode";
import { PictureDialog } from "./PictureDialog";
import { TABLE, tableActs } from "./tableNodes";
import { Tool } from "./Tool";

interface Props {
  label: string;
  value: string;
  writable: boolean;
  describedBy: string;
  groupId: number;
  /** Whose pictures may stand in it; 0 where it is nobody's yet. */
  portfolio: number;
  onChange: (html: string) => void;
}

type Asking = { what: "formula"; tex: string; at: number | null } | { what: "picture" } | { what: "alt"; src: string; alt: string; chosen: boolean } | null;

/** Milliseconds in which a dialog gives the focus back. */
const AFTER_A_DIALOG = 50;

function htmlOf(editor: TipTap): string {
  if (editor.isDestroyed) return "";
  return editor.isEmpty ? "" : editor.getHTML();
}

export default function PageEditor({ label, value, writable, describedBy, groupId, portfolio, onChange }: Props) {
  const [asking, setAsking] = useState<Asking>(null);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ heading: { levels: [2, 3, 4] }, link: { openOnClick: false, defaultProtocol: "https", protocols: ["https", "http", "mailto"] } }),
      Image,
      FormulaNode.configure({ onOpen: (tex, at) => setAsking({ what: "formula", tex, at }) }),
      ...TABLE,
    ],
    content: value,
    editable: writable,
    // Our policy allows no style that is put into the page; what it needs stands in theme.css.
    injectCSS: false,
    editorProps: {
      attributes: { "aria-label": label, "aria-describedby": describedBy, "aria-multiline": "true", "aria-readonly": String(!writable), role: "textbox", class: `rich min-h-44 px-3 py-2 text-base outline-none ${writable ? "" : "bg-ground"}` },
    },
    onUpdate: ({ editor: of }) => onChange(htmlOf(of)),
  });
  useEffect(() => {
    if (!editor.isDestroyed) editor.setEditable(writable, false);
  }, [editor, writable]);
  // Another device saved, or something was brought back.
  useEffect(() => {
    if (!editor.isDestroyed && value !== htmlOf(editor)) editor.commands.setContent(value, { emitUpdate: false });
  }, [editor, value]);
  return (
    <div className={`mt-1 rounded-md border bg-paper focus-within:outline-3 focus-within:outline-in ${writable ? "border-control" : "border-edge"}`}>
      {writable && <Bar editor={editor} label={label} pictures={portfolio > 0} onAsk={setAsking} />}
      <EditorContent editor={editor} />
      {asking?.what === "formula" && (
        <FormulaDialog
          tex={asking.tex}
          onClose={() => setAsking(null)}
          onDone={(tex) => {
            setAsking(null);
            const chain = editor.chain().focus();
            if (asking.at === null) chain.insertContent({ type: "formula", attrs: { tex } }).run();
            else if (tex) chain.setNodeSelection(asking.at).updateAttributes("formula", { tex }).run();
            else chain.setNodeSelection(asking.at).deleteSelection().run();
          }}
        />
      )}
      {asking?.what === "picture" && (
        <PictureDialog
          groupId={groupId}
          portfolio={portfolio}
          onClose={() => setAsking(null)}
          onChoose={(src) => {
            // The one dialog is gone before the other comes: the focus goes where the second wants it.
            setAsking(null);
            setTimeout(() => setAsking({ what: "alt", src, alt: "", chosen: false }), AFTER_A_DIALOG);
          }}
        />
      )}
      {asking?.what === "alt" && (
        <AltDialog
          src={asking.src}
          alt={asking.alt}
          onClose={() => setAsking(null)}
          onDone={(alt) => {
            setAsking(null);
            const chain = editor.chain().focus();
            if (asking.chosen) chain.updateAttributes("image", { alt }).run();
            else chain.setImage({ src: asking.src, alt }).run();
          }}
        />
      )}
    </div>
  );
}

function Bar({ editor, label, pictures, onAsk }: { editor: Editor; label: string; pictures: boolean; onAsk: (asking: Asking) => void }) {
  const on = useEditorState({
    editor,
    selector: ({ editor: of }) => ({
      bold: of.isActive("bold"),
      italic: of.isActive("italic"),
      big: of.isActive("heading", { level: 2 }),
      small: of.isActive("heading", { level: 3 }),
      list: of.isActive("bulletList"),
      ordered: of.isActive("orderedList"),
      quote: of.isActive("blockquote"),
      table: of.isActive("table"),
      picture: of.isActive("image"),
    }),
  });
  const run = () => editor.chain().focus();
  return (
    <div role="toolbar" aria-label={`${EDITOR.bar}: ${label}`} className="flex flex-wrap gap-0.5 border-b border-line px-1 py-0.5">
      <Tool name={EDITOR.bold} on={on.bold} act={() => run().toggleBold().run()} icon={<Bold aria-hidden size={18} />} />
      <Tool name={EDITOR.italic} on={on.italic} act={() => run().toggleItalic().run()} icon={<Italic aria-hidden size={18} />} />
      <Tool name={EDITOR.heading} on={on.big} act={() => run().toggleHeading({ level: 2 }).run()} icon={<Heading2 aria-hidden size={18} />} />
      <Tool name={EDITOR.smaller} on={on.small} act={() => run().toggleHeading({ level: 3 }).run()} icon={<Heading3 aria-hidden size={18} />} />
      <Tool name={EDITOR.list} on={on.list} act={() => run().toggleBulletList().run()} icon={<List aria-hidden size={18} />} />
      <Tool name={EDITOR.numbered} on={on.ordered} act={() => run().toggleOrderedList().run()} icon={<ListOrdered aria-hidden size={18} />} />
      <Tool name={EDITOR.quote} on={on.quote} act={() => run().toggleBlockquote().run()} icon={<Quote aria-hidden size={18} />} />
      <Tool name={EDITOR.table} on={on.table} act={() => tableActs(editor).insert()} icon={<Table2 aria-hidden size={18} />} />
      {pictures && <Tool name={EDITOR.picture} act={() => onAsk({ what: "picture" })} icon={<ImagePlus aria-hidden size={18} />} />}
      <Tool name={EDITOR.formula} act={() => onAsk({ what: "formula", tex: "", at: null })} icon={<Sigma aria-hidden size={18} />} />
      {/* In a form with an undo of its own the keys are enough. */}
      {pictures && <Tool name={EDITOR.undo} act={() => run().undo().run()} icon={<Undo2 aria-hidden size={18} />} />}
      {pictures && <Tool name={EDITOR.redo} act={() => run().redo().run()} icon={<Redo2 aria-hidden size={18} />} />}
      {on.table && <TableBar editor={editor} />}
      {on.picture && (
        <button type="button" onClick={() => onAsk(pictureOf(editor))} className="min-h-11 w-full rounded-sm border-t border-line px-2 text-left text-sm font-semibold text-ink-soft hover:bg-ground">
          {EDITOR.altChange}
        </button>
      )}
    </div>
  );
}

/** The picture that is chosen in the text. */
function pictureOf(editor: Editor): Asking {
  const { src, alt } = editor.getAttributes("image") as { src?: string; alt?: string | null };
  return { what: "alt", src: src ?? "", alt: alt ?? "", chosen: true };
}

function TableBar({ editor }: { editor: Editor }) {
  const acts = tableActs(editor);
  return (
    <div role="group" aria-label={EDITOR.inTable} className="flex w-full flex-wrap gap-1 border-t border-line py-1">
      {(
        [
          [EDITOR.row, acts.row],
          [EDITOR.column, acts.column],
          [EDITOR.rowAway, acts.rowAway],
          [EDITOR.columnAway, acts.columnAway],
          [EDITOR.tableAway, acts.away],
        ] as const
      ).map(([name, act]) => (
        <button key={name} type="button" onClick={act} className="min-h-11 rounded-sm px-2 text-sm font-semibold text-ink-soft hover:bg-ground">
          {name}
        </button>
      ))}
    </div>
  );
}
