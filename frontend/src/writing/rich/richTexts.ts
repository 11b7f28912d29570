/** The words of a rich text field. */
import { catalogue, message } from "../../language/catalogue";

export const TEXTS = catalogue("writing.rich", {
  formatting: message<{ label: string }>("Formatting: {label}"),
  addressOfTheLink: "Address of the link",
  setTheLink: "Set the link",
});

export const TOOLS = catalogue("writing.rich.tools", { bold: "Bold", italic: "Italic", heading: "Heading", list: "List", numbered: "Numbered list", linkOff: "Take the link off", link: "Link" });
