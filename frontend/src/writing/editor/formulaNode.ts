/** A formula in a page: its TeX, drawn; clicked to change. */
import { mergeAttributes, Node } from "@tiptap/core";

interface Options {
  onOpen: (tex: string, at: number) => void;
}

export const FormulaNode = Node.create<Options>({
  name: "formula",
  group: "inline",
  inline: true,
  atom: true,
  addOptions: () => ({ onOpen: () => undefined }),
  addAttributes: () => ({
    tex: { default: "", parseHTML: (element: HTMLElement) => element.getAttribute("data-tex") ?? "", renderHTML: (attributes: Record<string, unknown>) => ({ "data-tex": attributes.tex }) },
  }),
  parseHTML: () => [{ tag: "span[data-tex]" }],
  renderHTML: ({ HTMLAttributes: attributes }) => ["span", mergeAttributes(attributes)],
  addNodeView() {
    return ({ node, getPos }) => {
      const tex = String(node.attrs.tex);
      const dom = document.createElement("span");
      dom.className = "formula";
      dom.textContent = tex;
      dom.setAttribute("data-tex", tex);
      dom.addEventListener("click", () => {
        const at = getPos();
        if (at !== undefined && this.editor.isEditable) this.options.onOpen(tex, at);
      });
      void import("../../ui/reading/drawFormula").then(({ drawFormula }) => drawFormula(tex, dom));
      return { dom };
    };
  },
});
