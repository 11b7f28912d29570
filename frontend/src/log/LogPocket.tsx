/** A log in a pocket: a row to write, the rows, what they add up to. */
import { useQueryClient } from "@tanstack/react-query";
import { ClipboardPaste, Download } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { useSession } from "../api/session";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import type { Log, Row } from "./cells";
import { LogSums } from "./LogSums";
import { LogTable } from "./LogTable";
import { PasteRows } from "./PasteRows";
import { RowForm } from "./RowForm";
import { TEXTS } from "./texts";

interface Props {
  pocket: Schema["OpenedPocket"];
  log: Log;
  groupId: number;
  portfolio: number;
}

export function LogPocket({ pocket, log, groupId, portfolio }: Props) {
  const queries = useQueryClient();
  const say = useSay();
  const { today } = useSession();
  const [editing, setEditing] = useState<number | null>(null);
  const [pasting, setPasting] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const fresh = () => queries.invalidateQueries({ queryKey: ["group", groupId] });
  const at = (row: Row) => ({ params: { path: { row_id: row.id } } });
  const remove = async (row: Row) => {
    setProblem(null);
    try {
      await data(client.DELETE("/api/rows/{row_id}", at(row)));
      await fresh();
      say(TEXTS.theRowWasTakenOut, () => void data(client.POST("/api/rows/{row_id}/restore", at(row))).finally(fresh));
    } catch (error) {
      setProblem(error instanceof Problem ? error : null);
    }
  };
  const edited = log.rows.find((one) => one.id === editing);
  const may = pocket.writable;
  return (
    <div className="flex flex-col gap-4">
      {may && (
        <div className="rounded-lg border border-edge bg-paper p-4">
          <RowForm
            log={log}
            portfolio={portfolio}
            pocket={pocket.id}
            today={today}
            onSaved={async (saved) => {
              await fresh();
              say(saved.complete ? TEXTS.theRowIsInThe : TEXTS.theRowIsKeptStill({ missing: saved.missing.join(", ") }));
            }}
          />
        </div>
      )}
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      <LogTable
        log={log}
        editing={editing}
        form={
          edited && (
            <RowForm
              key={edited.id}
              log={log}
              portfolio={portfolio}
              pocket={pocket.id}
              row={edited}
              today={today}
              onSaved={async () => {
                await fresh();
                setEditing(null);
              }}
              onCancel={() => setEditing(null)}
            />
          )
        }
        {...(may ? { onEdit: (row: Row) => setEditing(row.id), onRemove: (row: Row) => void remove(row) } : {})}
      />
      {log.rows.length === 0 && <p className="text-base text-ink-soft">{may ? TEXTS.noRowsYetWriteThe : TEXTS.noRowsYet}</p>}
      <div className="flex flex-wrap gap-2">
        {may && (
          <Button big aria-expanded={pasting} icon={<ClipboardPaste aria-hidden size={18} />} onClick={() => setPasting(!pasting)}>
            {TEXTS.pasteRows}
          </Button>
        )}
        {log.rows.length > 0 && (
          <a
            href={`/api/portfolios/${portfolio}/pockets/${pocket.id}/rows.csv`}
            download
            className="inline-flex min-h-11 items-center gap-2 rounded-md border border-edge bg-paper px-5 text-base font-semibold hover:border-control hover:bg-ground"
          >
            <Download aria-hidden size={18} />
            {TEXTS.downloadAsCsv}
          </a>
        )}
      </div>
      {pasting && (
        <PasteRows
          portfolio={portfolio}
          pocket={pocket.id}
          onDone={async (added) => {
            await fresh();
            say(TEXTS.rowsAdded({ added }));
          }}
          onClose={() => setPasting(false)}
        />
      )}
      <LogSums log={log} />
    </div>
  );
}
