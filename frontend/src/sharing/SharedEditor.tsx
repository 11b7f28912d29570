/** The editor of a page that is filled together, with the names beside each passage; loaded when one is opened. */
import Collaboration from "@tiptap/extension-collaboration";
import { EditorContent, useEditor, useEditorState } from "@tiptap/react";
import type { Editor } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { Bold, Heading2, Italic, List, ListOrdered, Quote, Redo2, Undo2 } from "lucide-react";
import { useEffect, useLayoutEffect, useState } from "react";
import { EDITOR } from "../writing/editor/editorTexts";
import { Tool } from "../writing/editor/Tool";
import { useSay } from "../ui/Toasts";
import { mark, Whose } from "./marking";
import { Names } from "./Names";
import type { PassageAct } from "./Names";
import type { SharedSession, Shown } from "./session";
import { TEXTS } from "./texts";
import { passages, wordsOf } from "./whose";
import type { Piece } from "./whose";

const COUNTED_AFTER = 1000;
/** Milliseconds of rest after which it is counted how much each wrote. */

interface Props {
  session: SharedSession;
  shown: Shown;
  label: string;
  writable: boolean;
  /** Whose words are marked; 0: nobody's. */
  chosen: number;
  /** What can be done with a passage. */
  act: PassageAct | null;
}

export default function SharedEditor({ session, shown, label, writable, chosen, act }: Props) {
  const say = useSay();
  const [found, setFound] = useState<Piece[][]>([]);
  const editor = useEditor({
    extensions: [
      // Undo is the page's own: it takes back what this person wrote, not what others did meanwhile.
      StarterKit.configure({ undoRedo: false, trailingNode: false, codeBlock: false, horizontalRule: false, heading: { levels: [2, 3, 4] }, link: { openOnClick: false, defaultProtocol: "https", protocols: ["https", "http", "mailto"] } }),
      Collaboration.configure({ document: session.doc, field: "page" }),
      Whose,
    ],
    editable: writable,
    // Our policy allows no style that is put into the page; what it needs stands in theme.css.
    injectCSS: false,
    editorProps: {
      handlePaste: (_view, event) => noFiles(event.clipboardData, say),
      handleDrop: (_view, event) => noFiles(event.dataTransfer, say),
      attributes: { "aria-label": label, "aria-multiline": "true", "aria-readonly": String(!writable), role: "textbox", class: "rich shared min-h-72 px-4 py-3 text-base outline-none" },
    },
  });
  useEffect(() => {
    if (!editor.isDestroyed) editor.setEditable(writable, false);
  }, [editor, writable]);
  const { turn } = shown;
  useLayoutEffect(() => {
    // The editor takes over what came in a step of its own, after which both stand alike.
    const stand = requestAnimationFrame(() => {
      if (editor.isDestroyed) return;
      const now = passages(session.doc.getXmlFragment("page"), editor.state.doc, session.authors);
      if (now.length === editor.state.doc.childCount) mark(editor, now, chosen);
      setFound(now);
    });
    return () => cancelAnimationFrame(stand);
  }, [editor, session, turn, chosen]);
  useEffect(() => {
    const rest = setTimeout(() => {
      if (!editor.isDestroyed && found.length === editor.state.doc.childCount) session.counted(wordsOf(found, editor.state.doc));
    }, COUNTED_AFTER);
    return () => clearTimeout(rest);
  }, [editor, session, found]);
  return (
    <div className={`rounded-lg border bg-paper focus-within:outline-3 focus-within:outline-in ${writable ? "border-control" : "border-edge"}`}>
      {writable && <Bar editor={editor} label={label} />}
      <div className="relative">
        <EditorContent editor={editor} />
        <Names editor={editor} passages={found} people={shown.people} now={shown.now} act={act} />
      </div>
    </div>
  );
}

/** Pictures and files have no place in a page that many write: said, and kept out. */
function noFiles(came: DataTransfer | null, say: (text: string) => void): boolean {
  if (!came || came.files.length === 0) return false;
  say(TEXTS.noFiles);
  return true;
}

function Bar({ editor, label }: { editor: Editor; label: string }) {
  const on = useEditorState({
    editor,
    selector: ({ editor: of }) => ({ bold: of.isActive("bold"), italic: of.isActive("italic"), heading: of.isActive("heading"), list: of.isActive("bulletList"), ordered: of.isActive("orderedList"), quote: of.isActive("blockquote") }),
  });
  const run = () => editor.chain().focus();
  return (
    <div role="toolbar" aria-label={`${EDITOR.bar}: ${label}`} className="flex flex-wrap gap-0.5 border-b border-line px-1 py-0.5">
      <Tool name={EDITOR.bold} on={on.bold} act={() => run().toggleBold().run()} icon={<Bold aria-hidden size={18} />} />
      <Tool name={EDITOR.italic} on={on.italic} act={() => run().toggleItalic().run()} icon={<Italic aria-hidden size={18} />} />
      <Tool name={EDITOR.heading} on={on.heading} act={() => run().toggleHeading({ level: 2 }).run()} icon={<Heading2 aria-hidden size={18} />} />
      <Tool name={EDITOR.list} on={on.list} act={() => run().toggleBulletList().run()} icon={<List aria-hidden size={18} />} />
      <Tool name={EDITOR.numbered} on={on.ordered} act={() => run().toggleOrderedList().run()} icon={<ListOrdered aria-hidden size={18} />} />
      <Tool name={EDITOR.quote} on={on.quote} act={() => run().toggleBlockquote().run()} icon={<Quote aria-hidden size={18} />} />
      <Tool name={EDITOR.undo} act={() => run().undo().run()} icon={<Undo2 aria-hidden size={18} />} />
      <Tool name={EDITOR.redo} act={() => run().redo().run()} icon={<Redo2 aria-hidden size={18} />} />
    </div>
  );
}
