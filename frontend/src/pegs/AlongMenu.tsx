/** The pegs that are shown, taken along: copied as a table, or as a file for a spreadsheet. */
import { ClipboardCopy, FileSpreadsheet, GraduationCap, Printer } from "lucide-react";
import { Problem } from "../api/problem";
import { download } from "../api/upload";
import { shortDay } from "../ui/dates";
import { Actions } from "../ui/menus";
import type { Face } from "../ui/OnFirstUse";
import { useSay } from "../ui/Toasts";
import { inWords, listed } from "../ui/words";
import type { Board, Row } from "../filtering/filters";
import { ALONG } from "./alongTexts";
import { readyForPaper } from "./OnPaper";
import type { Props } from "./TakeAlong";
import { TEXTS } from "./texts";

const FORMATS = ["xlsx", "ods", "csv"] as const;
const ITEM = "flex min-h-9 w-full items-center gap-3 px-4 py-1.5 text-left data-focus:bg-today";

function tableOf(board: Board, rows: Row[]): string[][] {
  const head = [TEXTS.student, ALONG.period, TEXTS.filled, ...board.handins.map((one) => (one.due ? `${one.title} (${shortDay(one.due)})` : one.title))];
  const lines = rows.map((row) => [
    listed(row),
    row.period,
    row.wanted ? `${Math.round((100 * row.met) / row.wanted)}%` : "",
    ...row.cells.map((cell) => (cell.status === "not_asked" ? "" : inWords(cell))),
  ]);
  return [head, ...lines];
}

/** As the server writes CSV: no spreadsheet takes it for a formula. */
function harmless(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
}

/** A table on the clipboard, for spreadsheets and for texts. */
async function copy(cells: string[][]): Promise<void> {
  const table = cells.map((line) => line.map(harmless));
  const plain = table.map((line) => line.map((cell) => cell.replace(/[\t\n\r]/g, " ")).join("\t")).join("\n");
  const of = document.createElement("table");
  for (const line of table) {
    const row = of.insertRow();
    for (const cell of line) row.insertCell().textContent = cell;
  }
  const parts = { "text/plain": new Blob([plain], { type: "text/plain" }), "text/html": new Blob([of.outerHTML], { type: "text/html" }) };
  await navigator.clipboard.write([new ClipboardItem(parts)]);
}

export function AlongMenu({ face, board, rows, groupId, name, scores }: Props & { face: Face }) {
  const say = useSay();
  const done = { students: rows.length, handins: board.handins.length };
  const get = (format: (typeof FORMATS)[number]) =>
    download(`/api/groups/${groupId}/${scores ? "sheet" : "pegs"}/table`, { students: rows.map((row) => row.id), handins: board.handins.map((one) => one.id), format }, scores ? `${name} scores.${format}` : `${name}.${format}`)
      .then(() => say(ALONG.kept(done)))
      .catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : ALONG.notKept));
  const results = () =>
    download(`/api/groups/${groupId}/results`, { students: rows.map((row) => row.id), handins: board.handins.map((one) => one.id) }, `${name} results.zip`)
      .then(() => say(ALONG.kept(done)))
      .catch((error: unknown) => say(error instanceof Problem ? `${error.title} ${error.fix}` : ALONG.notKept));
  const onClipboard = () =>
    copy(tableOf(board, rows))
      .then(() => say(ALONG.copied(done)))
      .catch(() => say(ALONG.notCopied));
  const print = () =>
    readyForPaper()
      .then(() => window.print())
      .catch(() => say(ALONG.notPrinted));
  return (
    <Actions
      face={face}
      anchor="bottom end"
      className="mt-1 min-w-52 py-1"
      head={<p className="border-b border-line px-4 py-2 text-quiet">{ALONG.what(done)}</p>}
      items={[
        ...(scores
          ? []
          : [
              <button key="copy" type="button" className={ITEM} onClick={() => void onClipboard()}>
                <ClipboardCopy aria-hidden size={16} />
                {ALONG.copy}
              </button>,
            ]),
        <button key="print" type="button" className={ITEM} onClick={() => void print()}>
          <Printer aria-hidden size={16} />
          {ALONG.print}
        </button>,
        ...FORMATS.map((format) => (
          <button key={format} type="button" className={ITEM} onClick={() => void get(format)}>
            <FileSpreadsheet aria-hidden size={16} />
            {ALONG.formats[format]}
          </button>
        )),
        <button key="results" type="button" className={ITEM} onClick={() => void results()}>
          <GraduationCap aria-hidden size={16} />
          {ALONG.results}
        </button>,
      ]}
    />
  );
}
