/** Tables in a page, over ProseMirror's own. */
import { Node, callOrReturn, getExtensionField, mergeAttributes } from "@tiptap/core";
import type { Editor } from "@tiptap/core";
import { addColumnAfter, addRowAfter, deleteColumn, deleteRow, deleteTable, goToNextCell, tableEditing } from "@tiptap/pm/tables";

declare module "@tiptap/core" {
  interface NodeConfig<Options, Storage> {
    /** What a node is in a table: ProseMirror's ``tableRole``. */
    tableRole?: string | ((this: { name: string; options: Options; storage: Storage }) => string);
  }
}

const SPANS = {
  colspan: { default: 1, parseHTML: (cell: HTMLElement) => Number(cell.getAttribute("colspan") ?? 1) },
  rowspan: { default: 1, parseHTML: (cell: HTMLElement) => Number(cell.getAttribute("rowspan") ?? 1) },
  colwidth: { default: null, rendered: false },
};

/** Only spans that are any are written down. */
function cell(tag: "td" | "th", attributes: Record<string, unknown>): [string, Record<string, unknown>, 0] {
  const spans = Object.fromEntries(["colspan", "rowspan"].filter((name) => Number(attributes[name] ?? 1) > 1).map((name) => [name, attributes[name]]));
  return [tag, mergeAttributes(spans), 0];
}

const Table = Node.create({
  name: "table",
  group: "block",
  content: "tableRow+",
  isolating: true,
  tableRole: "table",
  parseHTML: () => [{ tag: "table" }],
  renderHTML: () => ["table", {}, ["tbody", 0]],
  addProseMirrorPlugins: () => [tableEditing()],
  addKeyboardShortcuts() {
    const go = (way: 1 | -1) => () => goToNextCell(way)(this.editor.state, (transaction) => this.editor.view.dispatch(transaction));
    return { Tab: go(1), "Shift-Tab": go(-1) };
  },
  extendNodeSchema: (extension) => ({
    tableRole: callOrReturn(getExtensionField<unknown>(extension, "tableRole", { name: extension.name, options: extension.options as unknown, storage: extension.storage as unknown })),
  }),
});
const Row = Node.create({ name: "tableRow", content: "(tableCell | tableHeader)*", tableRole: "row", parseHTML: () => [{ tag: "tr" }], renderHTML: () => ["tr", {}, 0] });
const Cell = Node.create({ name: "tableCell", content: "block+", isolating: true, tableRole: "cell", addAttributes: () => SPANS, parseHTML: () => [{ tag: "td" }], renderHTML: ({ HTMLAttributes }) => cell("td", HTMLAttributes) });
const Header = Node.create({ name: "tableHeader", content: "block+", isolating: true, tableRole: "header_cell", addAttributes: () => SPANS, parseHTML: () => [{ tag: "th" }], renderHTML: ({ HTMLAttributes }) => cell("th", HTMLAttributes) });

export const TABLE = [Table, Row, Cell, Header];

const empty = (type: string) => ({ type, content: [{ type: "paragraph" }] });

/** What can be done with tables: put one of three by three in, change its rows and columns, take it out. */
export function tableActs(editor: Editor) {
  const act = (command: typeof addRowAfter) => () => {
    command(editor.state, (transaction) => editor.view.dispatch(transaction));
    editor.commands.focus();
  };
  const row = (type: string) => ({ type: "tableRow", content: [empty(type), empty(type), empty(type)] });
  return {
    insert: () => {
      editor.chain().focus().insertContent({ type: "table", content: [row("tableHeader"), row("tableCell"), row("tableCell")] }).run();
      // Written on in its first cell.
      const { $from } = editor.state.selection;
      for (let depth = $from.depth; depth > 0; depth -= 1) {
        if ($from.node(depth).type.name === "table") return editor.commands.setTextSelection($from.start(depth) + 3);
      }
      return true;
    },
    row: act(addRowAfter),
    column: act(addColumnAfter),
    rowAway: act(deleteRow),
    columnAway: act(deleteColumn),
    away: act(deleteTable),
  };
}
