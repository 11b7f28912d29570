/** The words of looking at artefacts. */
import { catalogue, message } from "../language/catalogue";

export const TEXTS = catalogue("viewer", {
  bytesMb: message<{ bytes: string }>("{bytes} MB"),
  thereIsNoConnectionJust: "There is no connection just now.",
  itIsBeingMadeReadable: "It is being made readable. You can close this and come back.",
  downloadItToOpenIt: "Download it to open it on your device.",
  thereIsNoViewerFor: "There is no viewer for files of this kind. Download it to open it on your device.",
  downloadTheOriginal: "Download the original",
  pages: "Pages",
  titlePageAtOfPages: message<{ title: string; at: number; pages: number }>("{title}, page {at, number} of {pages, number}"),
  atOfPages: message<{ at: number; pages: number }>("{at, number} of {pages, number}"),
  tables: "Tables",
  tablePlace: message<{ place: number }>("Table {place, number}"),
  table: "Table",
  thisTableIsEmpty: "This table is empty.",
  lookAtItTitle: message<{ title: string }>("Look at it: {title}"),
  lookAtIt: "Look at it",
  downloadSize: message<{ size: string }>("Download ({size})"),
  inPockets: message<{ pockets: string }>("in {pockets}"),
  bytesBytes: message<{ bytes: number }>("{bytes, number} bytes"),
  bytesKb: message<{ bytes: number }>("{bytes, number} kB"),
  rowsLeftOutRows: message<{ rows_left_out: number }>("{rows_left_out, number} rows"),
  columnsLeftOutColumns: message<{ columns_left_out: number }>("{columns_left_out, number} columns"),
  signsLeft: message<{ left: number }>("{left, plural, one {# sign} other {# signs}} more than is shown here; the original has everything."),
  rowsColumnsLeft: message<{ left: string }>("{left} more than is shown here; the original has everything."),
});
