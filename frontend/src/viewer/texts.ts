/** The words of viewer. */
import { catalogue, message } from "../language/catalogue";
export const TEXTS = catalogue("viewer", {
  bytesMb: message<{ bytes: string }>("{bytes} MB"),
  thereIsNoConnectionJust: "There is no connection just now.",
  itIsBeingMadeReadable: "It is being made readable. You can close this and come back.",
  downloadItToOpenIt: "Download it to open it on your device.",
  thereIsNoViewerFor: "There is no viewer for files of this kind. Download it to open it on your device.",
  downloadTheOriginal: "Download the original",
  pages: "Pages",
  moreThanIsShownHere: "more than is shown here; the original has everything.",
  titlePageAtOfPages: message<{ title: string; at: number; pages: number }>("{title}, page {at} of {pages}"),
  atOfPages: message<{ at: number; pages: number }>("{at} of {pages}"),
  tables: "Tables",
  tablePlace: message<{ place: number }>("Table {place}"),
  table: "Table",
  thisTableIsEmpty: "This table is empty.",
  lookAtItTitle: message<{ title: string }>("Look at it: {title}"),
  lookAtIt: "Look at it",
  downloadSize: message<{ size: string }>("Download ({size})"),
  inPockets: message<{ pockets: string }>("in {pockets}"),
});
