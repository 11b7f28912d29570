/** Rows copied from a spreadsheet: read line by line first, then those that fit are added. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Notice } from "../ui/Notice";
import { useDraft } from "../writing/useDraft";
import { useSettled } from "../ui/useSettled";
import { TEXTS } from "./texts";

interface Props {
  portfolio: number;
  pocket: number;
  onDone: (added: number) => Promise<void>;
  onClose: () => void;
}

export function PasteRows({ portfolio, pocket, onDone, onClose }: Props) {
  const [text, setText] = useState("");
  const drop = useDraft(`paste/${portfolio}/${pocket}`, text, 0, text !== "", (kept) => setText((now) => now || kept));
  const settled = useSettled(text);
  const send = (apply: boolean) =>
    data(client.POST("/api/portfolios/{portfolio_id}/pockets/{pocket_id}/rows/paste", { params: { path: { portfolio_id: portfolio, pocket_id: pocket } }, body: { text: apply ? text : settled, apply } }));
  const read = useQuery({ queryKey: ["paste", pocket, settled], enabled: settled.trim() !== "", queryFn: () => send(false), retry: false });
  const add = useMutation({
    mutationFn: () => send(true),
    onSuccess: async (done) => {
      await onDone(done.added);
      const left = done.lines.filter((line) => line.wrong.length > 0);
      if (left.length === 0) close();
      else setText([done.headings.join("\t"), ...left.map((line) => line.cells.join("\t"))].join("\n"));
    },
  });
  const close = () => {
    drop();
    onClose();
  };
  const problem = add.error ?? read.error;
  const found = text.trim() ? read.data : undefined;
  return (
    <section aria-label={TEXTS.pasteRows} className="flex flex-col gap-3 rounded-lg border border-edge bg-paper p-4">
      <label className="text-base font-bold">
        {TEXTS.rowsFromASpreadsheet}{" "}<span className="font-normal text-quiet">{TEXTS.withTheirHeadingsOrIn}</span>
        <textarea rows={4} value={text} onChange={(event) => setText(event.target.value)} className="mt-1 block w-full rounded-md border border-control bg-paper px-3 py-2 font-normal" />
      </label>
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
      {found && <Lines found={found} />}
      <div className="flex gap-2">
        <Button big disabled={!found || found.added === 0 || add.isPending} onClick={() => add.mutate()}>
          {found && found.added > 0 ? TEXTS.addRows({ added: found.added }) : TEXTS.addTheRows}
        </Button>
        <Button big look="quiet" onClick={close}>
          {TEXTS.close}
        </Button>
      </div>
    </section>
  );
}

function Lines({ found }: { found: Schema["PastedShape"] }) {
  return (
    <ul aria-label={TEXTS.whatWasRead} className="max-h-60 overflow-y-auto rounded-md border border-line text-base">
      {found.lines.map((line) => (
        <li key={line.line} className="border-b border-line px-3 py-1.5 last:border-0">
          <span className="figures mr-2 text-quiet">{TEXTS.lineLine({ line: line.line })}</span>
          <span className="break-words">{line.cells.filter(Boolean).join(" · ")}</span>
          {line.wrong.map((one) => (
            <span key={one.column} className="block text-sm text-overdue">
              {one.what} {one.fix}
            </span>
          ))}
          {line.here && <span className="block text-sm text-quiet">{TEXTS.standsHereAlreadyLeftOut}</span>}
          {line.missing.length > 0 && line.wrong.length === 0 && <span className="block text-sm text-copper">{TEXTS.stillToWriteMissing2({ missing: line.missing.join(", ") })}</span>}
        </li>
      ))}
    </ul>
  );
}
