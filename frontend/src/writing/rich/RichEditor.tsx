/** The editor behind a rich text field; loaded when a field is shown. */
import { EditorContent, useEditor, useEditorState } from "@tiptap/react";
import type { Editor } from "@tiptap/react";
import StarterKit from "@tiptap/starter-kit";
import { Bold, Heading, Italic, Link2, List, ListOrdered, Unlink } from "lucide-react";
import { useEffect, useState } from "react";
import type { ReactNode } from "react";
import { Button } from "../../ui/Button";
import { TEXTS, TOOLS } from "./richTexts";

interface Props {
  label: string;
  value: string;
  may: boolean;
  placeholder: string;
  onChange: (html: string) => void;
}

export default function RichEditor({ label, value, may, placeholder, onChange }: Props) {
  const editor = useEditor({
    extensions: [StarterKit.configure({ heading: { levels: [3, 4] }, codeBlock: false, horizontalRule: false, link: { openOnClick: false, defaultProtocol: "https", protocols: ["https", "http", "mailto"] } })],
    content: value,
    editable: may,
    // Our policy allows no style that is put into the page; what it needs stands in theme.css.
    injectCSS: false,
    editorProps: {
      attributes: { "aria-label": label, role: "textbox", "aria-multiline": "true", class: "rich min-h-20 px-3 py-2 outline-none", "data-placeholder": placeholder },
    },
    onUpdate: ({ editor: of }) => onChange(of.isEmpty ? "" : of.getHTML()),
  });
  // The form was set back, or another version of the pocket came.
  useEffect(() => {
    // An editor that was let go of in this very moment has nothing to be set.
    if (editor.isDestroyed) return;
    if (value !== (editor.isEmpty ? "" : editor.getHTML())) editor.commands.setContent(value, { emitUpdate: false });
  }, [editor, value]);
  return (
    <div className={`mt-1 rounded-md border bg-paper font-normal focus-within:outline-3 focus-within:outline-in ${may ? "border-control" : "border-edge"}`}>
      {may && <Bar editor={editor} label={label} />}
      <EditorContent editor={editor} />
    </div>
  );
}

function Bar({ editor, label }: { editor: Editor; label: string }) {
  const [linking, setLinking] = useState(false);
  const on = useEditorState({
    editor,
    selector: ({ editor: of }) => ({
      bold: of.isActive("bold"),
      italic: of.isActive("italic"),
      heading: of.isActive("heading"),
      list: of.isActive("bulletList"),
      ordered: of.isActive("orderedList"),
      link: of.isActive("link"),
    }),
  });
  const run = () => editor.chain().focus();
  return (
    <div className="border-b border-line">
      <div role="toolbar" aria-label={TEXTS.formatting({ label })} className="flex flex-wrap gap-0.5 px-1 py-0.5">
        <Tool name={TOOLS.bold} on={on.bold} act={() => run().toggleBold().run()} icon={<Bold aria-hidden size={16} />} />
        <Tool name={TOOLS.italic} on={on.italic} act={() => run().toggleItalic().run()} icon={<Italic aria-hidden size={16} />} />
        <Tool name={TOOLS.heading} on={on.heading} act={() => run().toggleHeading({ level: 3 }).run()} icon={<Heading aria-hidden size={16} />} />
        <Tool name={TOOLS.list} on={on.list} act={() => run().toggleBulletList().run()} icon={<List aria-hidden size={16} />} />
        <Tool name={TOOLS.numbered} on={on.ordered} act={() => run().toggleOrderedList().run()} icon={<ListOrdered aria-hidden size={16} />} />
        {on.link ? (
          <Tool name={TOOLS.linkOff} on act={() => run().unsetLink().run()} icon={<Unlink aria-hidden size={16} />} />
        ) : (
          <Tool name={TOOLS.link} on={linking} act={() => setLinking(!linking)} icon={<Link2 aria-hidden size={16} />} />
        )}
      </div>
      {linking && <LinkField onLink={(href) => run().setLink({ href }).run()} onDone={() => setLinking(false)} editor={editor} />}
    </div>
  );
}

/** A press with the mouse leaves the focus in the text, so that the next key is written there. */
function Tool({ name, on, act, icon }: { name: string; on: boolean; act: () => void; icon: ReactNode }) {
  return (
    <button type="button" aria-label={name} title={name} aria-pressed={on} onMouseDown={(event) => event.preventDefault()} onClick={act} className={`flex size-8 items-center justify-center rounded-sm ${on ? "bg-ink text-paper" : "text-ink-soft hover:bg-ground"}`}>
      {icon}
    </button>
  );
}

/** The address of a link; with nothing marked, the address itself becomes the text. */
function LinkField({ editor, onLink, onDone }: { editor: Editor; onLink: (href: string) => void; onDone: () => void }) {
  const [href, setHref] = useState("https://");
  const set = () => {
    if (editor.state.selection.empty) editor.chain().focus().insertContent({ type: "text", text: href, marks: [{ type: "link", attrs: { href } }] }).run();
    else onLink(href);
    onDone();
  };
  return (
    <div className="flex items-center gap-2 px-2 pb-2">
      <input
        aria-label={TEXTS.addressOfTheLink}
        value={href}
        inputMode="url"
        onChange={(event) => setHref(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          set();
        }}
        className="min-h-8 min-w-0 flex-1 rounded-md border border-control px-2"
      />
      <Button onClick={set}>{TEXTS.setTheLink}</Button>
    </div>
  );
}
